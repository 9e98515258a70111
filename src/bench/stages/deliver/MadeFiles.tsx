'use client';

import { DeleteOutlined, DownloadOutlined, StopOutlined } from '@ant-design/icons';
import { Button, Progress } from 'antd';
import { formatBytes, formatTime } from '@/ui/format';
import { useBench } from '../../benchContext';
import { dropFiles, fileHref, type FileJob } from '../../state/files';

/** Files that were made, and those that are being made: they are found here again, whoever went away meanwhile. */
export function MadeFiles({ jobs, look }: { jobs: readonly FileJob[]; look: () => void }) {
  if (jobs.length === 0) return null;
  return (
    <div className="card" role="group" aria-label="Made files">
      <div className="row">
        <b>Made files</b>
      </div>
      <ul className="made-files">
        {jobs.map((job) => (
          <MadeRow key={job.id} job={job} look={look} />
        ))}
      </ul>
    </div>
  );
}

function MadeRow({ job, look }: { job: FileJob; look: () => void }) {
  const bench = useBench();
  const isOpen = job.endedAt === null;
  const drop = (): void =>
    void dropFiles(job.id)
      .then(look)
      .catch((e: Error) => bench.tell(e.message, undefined, 'warning'));
  return (
    <li aria-label={job.name}>
      <div>
        <b title={job.name}>{job.name}</b>
        {isOpen ? (
          <Progress
            size="small"
            percent={Math.round((100 * job.made) / job.total)}
            aria-label={`${job.made} of ${job.total} made`}
          />
        ) : (
          <>
            {job.state === 'done' && (
              <small>
                {formatBytes(job.bytes ?? 0)} · {formatTime(job.endedAt!)}
              </small>
            )}
            {job.reason && <small>{job.reason}</small>}
          </>
        )}
      </div>
      <span>
        {job.state === 'done' && (
          <Button
            size="small"
            type="text"
            icon={<DownloadOutlined />}
            href={fileHref(job.id)}
            download={job.name}
            aria-label={`Save ${job.name}`}
            title="Save"
          />
        )}
        <Button
          size="small"
          type="text"
          icon={isOpen ? <StopOutlined /> : <DeleteOutlined />}
          aria-label={`${isOpen ? 'Stop' : 'Forget'} ${job.name}`}
          title={isOpen ? 'Stop' : 'Forget'}
          onClick={drop}
        />
      </span>
    </li>
  );
}

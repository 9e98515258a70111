import { Alert, Button } from 'antd';
import { formatBytes, formatCount, formatSince } from '@/ui/format';
import type { Part } from './deeds';

/** What is kept in a store beyond this machine as well. */
export function Elsewhere({ state: { elsewhere, now, trouble }, busy, run }: Part) {
  return (
    <section aria-label="Kept elsewhere">
      <h2>Kept elsewhere</h2>
      {elsewhere === null ? (
        <p>
          Nothing is: a disk that breaks takes the drawings and their backups alike. Name another disk’s folder, or a
          store that speaks S3, in <code>YELLOW_QUILL_STORE</code>; pictures and backups are then sent there too.
        </p>
      ) : (
        <>
          <dl>
            <dt>Where</dt>
            <dd>{elsewhere.where}</dd>
            <dt>There</dt>
            <dd>
              {formatCount(elsewhere.backups.length, 'backup')}, {formatCount(elsewhere.pictures, 'picture')}:{' '}
              {formatBytes(elsewhere.bytes)}
            </dd>
            <dt>All was there</dt>
            <dd>{elsewhere.at === null ? 'not yet' : formatSince(elsewhere.at, now)}</dd>
          </dl>
          <Button
            loading={busy === 'send'}
            disabled={busy !== null || trouble !== null}
            onClick={() =>
              run({ deed: 'send' }, (after) => (after.elsewhere?.trouble ? 'Not all could be sent.' : 'All is there.'))
            }
          >
            Send what is not there
          </Button>
          {elsewhere.trouble && (
            <Alert
              type="warning"
              showIcon
              title="The store could not be used the last time."
              description={`${elsewhere.trouble}. It is tried again every hour; here all is kept as ever.`}
            />
          )}
        </>
      )}
    </section>
  );
}

'use client';

import { Button, DatePicker, Slider } from 'antd';
import { useState } from 'react';
import { useRouter } from 'next/navigation';
import type { HistoryPoint } from '@/core/change/historyPoints';
import { formatCount, formatNumber, formatTime } from '@/ui/format';
import { NameField } from '@/ui/NameField';
import { useBench, useBenchState } from '../benchContext';
import { copyAsOf, copyAt } from '../state/api';
import { pictureAt } from '../state/history';
import { goBackToMoment, keepAt, showDifferences, type Moment } from '../commands/versions';
import { useHistory } from '../useHistory';

const NOW: Moment = { revision: null, label: 'now' };
const momentOf = (p: HistoryPoint): Moment => ({ revision: p.revision, label: `change ${formatNumber(p.revision)}` });

/** The whole history: a picture of any of its states, which can be gone back to, opened, kept, and compared. */
export function TimeLine({ close }: { close: () => void }) {
  const bench = useBench();
  const router = useRouter();
  const id = useBenchState((s) => s.id);
  const reading = useBenchState((s) => s.reading);
  const history = useHistory();
  const [at, setAt] = useState<number | null>(null);
  const [marked, setMarked] = useState<HistoryPoint | null>(null);
  const [isNaming, setNaming] = useState(false);
  const points = history?.points ?? [];
  if (points.length === 0) return null;
  const point = points[Math.min(at ?? points.length - 1, points.length - 1)];
  const other = marked && marked.revision !== point.revision ? marked : null;
  const compare = (): void => {
    close();
    if (!other) return void showDifferences(bench, momentOf(point), NOW);
    const [a, b] = other.revision < point.revision ? [other, point] : [point, other];
    void showDifferences(bench, momentOf(a), momentOf(b));
  };
  const open = (asked: Promise<{ id: string }>): void =>
    void asked.then(
      (copy) => router.push(`/drawing/${copy.id}`),
      (e: Error) => bench.tell(`It could not be opened: ${e.message}`, undefined, 'warning'),
    );
  return (
    <div className="time-line" role="group" aria-label="Time line">
      <b>Time line</b>
      <div className="moment">
        {/* eslint-disable-next-line @next/next/no-img-element -- the server makes it */}
        <img src={pictureAt(id, point.revision)} alt={`As it was at change ${point.revision}`} width={96} height={72} />
        <div>
          <b>{point.label}</b>
          <small>
            {formatTime(point.at)}, change {formatNumber(point.revision)}
          </small>
          <small>
            {formatCount(point.lines, 'line')}, {formatCount(point.flats, 'flat')}
          </small>
        </div>
      </div>
      <Slider
        min={0}
        max={points.length - 1}
        value={Math.min(at ?? points.length - 1, points.length - 1)}
        tooltip={{ open: false }}
        ariaLabelForHandle="Moment of the history"
        onChange={setAt}
      />
      {isNaming ? (
        <NameField
          label="Name of the version"
          value=""
          onDone={(name) => {
            setNaming(false);
            if (name) void keepAt(bench, name, point.revision);
          }}
        />
      ) : (
        <div className="buttons">
          <Button
            size="small"
            disabled={reading}
            onClick={() => {
              close();
              void goBackToMoment(bench, momentOf(point));
            }}
          >
            Go back
          </Button>
          <Button size="small" onClick={() => open(copyAt(id, point.revision))}>
            Open as a drawing
          </Button>
          <Button size="small" disabled={reading} onClick={() => setNaming(true)}>
            Keep by name
          </Button>
          <Button size="small" onClick={() => setMarked(marked?.revision === point.revision ? null : point)}>
            {marked?.revision === point.revision ? 'Unmark' : 'Mark'}
          </Button>
          <Button size="small" onClick={compare}>
            {other ? `Compare with change ${formatNumber(other.revision)}` : 'Compare with now'}
          </Button>
          <DatePicker
            size="small"
            showTime={{ format: 'HH:mm' }}
            format="D MMM YYYY HH:mm"
            placeholder="Open as of a minute"
            aria-label="Open as of a minute"
            // To the end of the minute that is named.
            onOk={(moment) => open(copyAsOf(id, moment.endOf('minute').valueOf()))}
          />
        </div>
      )}
    </div>
  );
}

import { Button } from 'antd';
import type { Keeping as State } from '@/server/keeping/keeper';
import { formatBytes, formatCount, formatTime } from '@/ui/format';
import type { Part } from './deeds';
import { KeptTable, SureButton } from './KeptTable';

const reasons: Record<State['backups'][number]['reason'], string> = {
  daily: 'every day',
  asked: 'asked for',
  'before-upgrade': 'before a newer program',
  'before-restore': 'before another was put back',
  rescued: 'the database was taken away',
};

/** What the table has of a backup, and where it is. */
type Row = State['backups'][number] & { where: string };

/** All backups, here or elsewhere, the newest first. */
export function rowsOf({ backups, elsewhere }: State): Row[] {
  const there = elsewhere?.backups ?? [];
  const inBoth = new Set(there.map((b) => b.name));
  const here = new Set(backups.map((b) => b.name));
  const rows = [
    ...backups.map((b) => ({ ...b, where: inBoth.has(b.name) ? 'here and elsewhere' : 'here' })),
    ...there.filter((b) => !here.has(b.name)).map((b) => ({ ...b, where: 'elsewhere' })),
  ];
  return rows.sort((a, b) => b.at - a.at);
}

/** The backups that are there, and the way back to each. */
export function Backups({ state, busy, run }: Part) {
  const { trouble, elsewhere } = state;
  const rows = rowsOf(state);
  return (
    <section aria-label="Backups">
      <h2>Backups</h2>
      <p>
        One is taken every day and before a newer program changes the tables; each is checked. The last seven days stay,
        then one a week; where room is short the oldest go first.
      </p>
      <Button
        loading={busy === 'back up'}
        disabled={busy !== null || trouble !== null}
        onClick={() => run({ deed: 'back up' }, () => 'A backup is taken and checked.')}
      >
        Back up now
      </Button>
      <KeptTable<Row>
        rows={rows}
        empty="No backup yet."
        columns={[
          { title: 'Taken', render: (_, b) => <time suppressHydrationWarning>{formatTime(b.at)}</time> },
          {
            title: 'Why',
            render: (_, b) =>
              `${reasons[b.reason]}${b.findings > 0 ? `; ${formatCount(b.findings, 'drawing')} in it damaged` : ''}`,
          },
          { title: 'Drawings', dataIndex: 'drawings', align: 'right' },
          { title: 'Changes', dataIndex: 'changes', align: 'right' },
          ...(elsewhere ? [{ title: 'Where', dataIndex: 'where' }] : []),
          { title: 'Size', align: 'right', render: (_, b) => formatBytes(b.bytes) },
        ]}
        last={(b) => (
          <SureButton
            label="Put back"
            ask="Put this backup in the place of all drawings?"
            about="As they are now they become a backup of their own, or are put aside where they cannot be read."
            small
            disabled={busy !== null}
            onSure={() => run({ deed: 'restore', backup: b.name }, () => `The drawings are as of ${formatTime(b.at)}.`)}
          />
        )}
      />
    </section>
  );
}

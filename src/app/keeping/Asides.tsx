import type { Keeping as State } from '@/server/keeping/keeper';
import { formatBytes, formatTime } from '@/ui/format';
import type { Part } from './deeds';
import { KeptTable, SureButton } from './KeptTable';

type Row = State['asides'][number];

/** Databases that were put aside as they were, for as long as somebody may want to look into them. */
export function Asides({ state: { asides, place }, busy, run }: Part) {
  if (asides.length === 0) return null;
  return (
    <section aria-label="Put aside">
      <h2>Put aside</h2>
      <p>
        Databases that were damaged when others took their place. They lie in {place}/aside as they were, until they are
        deleted here.
      </p>
      <KeptTable<Row>
        rows={asides}
        columns={[
          { title: 'Put aside', render: (_, a) => <time suppressHydrationWarning>{formatTime(a.at)}</time> },
          { title: 'Folder', dataIndex: 'name' },
          { title: 'Size', align: 'right', render: (_, a) => formatBytes(a.bytes) },
        ]}
        last={(a) => (
          <SureButton
            label="Delete"
            ask="Delete this database for good?"
            about="Whatever is in it and nowhere else is gone then."
            danger
            small
            disabled={busy !== null}
            onSure={() => run({ deed: 'delete aside', aside: a.name }, () => 'It is deleted.')}
          />
        )}
      />
    </section>
  );
}

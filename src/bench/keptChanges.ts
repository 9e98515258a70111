import { SCHEMA_VERSION } from '@/core/drawing/schema';
import { formatCount } from '@/ui/format';
import { forgetStuck, type Recovered, type Stuck } from './state/saver';
import type { Bench } from './state/store';
import type { BroughtBack } from './state/wentBack';

/** What is told of changes that could not go the plain way, and what can be done with them. */

/** Leads to another page. */
export type Go = (path: string) => void;

const were = (count: number): string => (count === 1 ? 'was' : 'were');

/** Changes became a drawing of their own. */
export function tellAside(
  bench: Bench,
  aside: { id: string; title: string; count: number },
  why: string,
  go: Go,
): void {
  bench.tell(
    `${why} ${formatCount(aside.count, 'change')} ${were(aside.count)} kept as “${aside.title}”.`,
    { label: 'Open it', run: () => go(`/drawing/${aside.id}`) },
    'warning',
  );
}

/** A drawing that had been put aside was gone from the server, and is there again. */
export const tellAsideBack = (bench: Bench, { id, title }: { id: string; title: string }, go: Go): void =>
  bench.tell(
    `The server had lost “${title}”, which was put aside from this drawing; it is there again.`,
    { label: 'Open it', run: () => go(`/drawing/${id}`) },
    'warning',
  );

/** Changes that the server will not have: offered as a file, each time the drawing is opened, until they are saved. */
export function tellStuck(bench: Bench, stuck: Stuck): void {
  const count = stuck.changes.length;
  bench.tell(
    `${formatCount(count, 'change')} could not be kept on the server: ${stuck.why} ${count === 1 ? 'It is' : 'They are'} still in this browser.`,
    {
      label: 'Save as a file',
      run: () => {
        const { id, title } = bench.getState();
        saveFile(`${title} (changes).json`, { drawing: id, title, schema: SCHEMA_VERSION, ...stuck });
        bench.tell(`The file holds ${count === 1 ? 'that change' : `all ${count} changes`}.`, {
          label: 'Forget them here',
          run: () => void forgetStuck(id).catch(() => undefined),
        });
      },
    },
    'warning',
  );
}

function saveFile(name: string, content: object): void {
  const url = URL.createObjectURL(new Blob([JSON.stringify(content)], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** What became of what an earlier visit left here. */
export function tellRecovered(bench: Bench, recovered: Recovered, go: Go): void {
  switch (recovered.kind) {
    case 'none':
    // What is to be done with those is asked for above.
    case 'went back':
      return;
    case 'no store':
      return bench.tell(
        'This browser keeps nothing for this page (a private window, perhaps). Leave it open until it says “saved” above.',
        undefined,
        'warning',
      );
    case 'sent':
      return bench.tell(
        `${formatCount(recovered.count, 'change')} from your last visit ${were(recovered.count)} still here and ${recovered.count === 1 ? 'is' : 'are'} saved now.`,
      );
    case 'aside':
      return tellAside(bench, recovered, 'This drawing went on without what you did last.', go);
    case 'waiting':
      return bench.setState({ reading: true, readingWhy: 'waiting' });
    case 'stuck':
      return tellStuck(bench, recovered);
  }
}

/** What became of changes that the server had lost. */
export function tellBroughtBack(bench: Bench, brought: BroughtBack, go: Go): void {
  switch (brought.kind) {
    case 'back':
      return bench.tell(`${formatCount(brought.count, 'change')} ${were(brought.count)} given to the server again.`);
    case 'aside':
      return tellAside(bench, brought, 'The drawing is as the server has it.', go);
    case 'stuck':
      return tellStuck(bench, brought);
  }
}

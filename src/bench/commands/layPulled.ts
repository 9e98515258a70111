import { nanoid } from 'nanoid';
import type { Line } from '@/core';
import { addFolderOfLines } from '@/core/edits/folders';
import type { Bench } from '../state/store';

/** What was pulled from a picture laid on the page: sheets in a folder of their own, the last of them in hand. `said` is told. */
export function layPulled(
  bench: Bench,
  folder: string,
  groups: readonly { name: string; lines: readonly Line[] }[],
  label: string,
  said: string,
): void {
  const sheets = groups.map((g) => ({ ...g, id: nanoid(10) }));
  const { drawing } = bench.getState();
  if (!bench.commit(addFolderOfLines(drawing, { id: nanoid(10), name: folder.slice(0, 200) }, sheets, label))) return;
  bench.setState({ pulled: null, sheet: sheets.at(-1)!.id, tool: 'place' });
  bench.tell(said, { label: 'Undo', run: () => bench.undo() });
}

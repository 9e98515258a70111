import type { Box } from '@/core';
import type { LeftNote } from '@/core/edits/fix/fixNote';
import { waveThrough } from '@/core/edits/notes';
import type { Note, NoteKind } from '@/core/check/note';
import { growBox } from '@/core/geometry/box';
import type { Fixed } from '@/workers/checks';
import { checkingOf } from '../state/checkingOf';
import { noteWords } from '../state/noteWords';
import type { Bench } from '../state/store';
import { fitting, MOST_SCALE } from '../state/view';

/** What can be done about what the checks found. */

/** A note is looked at from so near that about this much of the page is seen, page units. */
const AROUND = 70;

/** Shows a box of the page with some of what is around it; never nearer than is of use. */
export function goTo(bench: Bench, box: Box, around: number): void {
  const view = fitting(growBox(box, around), bench.getState().window);
  bench.setState({ view: { ...view, scale: Math.min(view.scale, MOST_SCALE / 4) } });
}

/** Goes to a note, chooses its line, and shows what its fix would do. */
export function visit(bench: Bench, note: Note): void {
  const { at } = note;
  checkingOf(bench)?.store.setState({ note: note.key });
  goTo(bench, { minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, AROUND);
  bench.setState((s) => ({ tool: s.tool === 'settle' || s.tool === 'thin' ? 'nodes' : s.tool }));
  bench.choose(note.lines);
}

/** The note after (or before) the one that was visited last, of one kind or of all. */
export function visitNext(bench: Bench, step: 1 | -1, kind?: NoteKind): void {
  const checked = checkingOf(bench)?.store.getState();
  const list = checked?.open.filter((n) => !kind || n.kind === kind) ?? [];
  if (list.length === 0) return bench.tell('There is nothing left to look at.');
  const here = list.findIndex((n) => n.key === checked?.note);
  const next = here < 0 ? (step > 0 ? 0 : list.length - 1) : (here + step + list.length) % list.length;
  visit(bench, list[next]);
}

/** What puts notes right, asked for again when the drawing changes meanwhile; null, and told, where the checks fail. */
async function fixed(bench: Bench, notes: Note[], label: string): Promise<Fixed | null> {
  try {
    for (const checking = checkingOf(bench); checking;) {
      const found = await checking.ask.fix(notes, label);
      if (found) return found;
    }
  } catch {
    bench.tell('The checks had to begin again. Nothing was changed; ask once more.', undefined, 'warning');
  }
  return null;
}

/** Benches on which notes are being put right: one press more does nothing until that is done. */
const busy = new WeakSet<Bench>();

/** The same, once at a time. */
async function fixedOnce(bench: Bench, notes: Note[], label: string): Promise<Fixed | null> {
  if (busy.has(bench)) return null;
  busy.add(bench);
  return fixed(bench, notes, label).finally(() => busy.delete(bench));
}

let wanted: Note | null = null;

/** What a note's fix would do, shown while the pointer is over its button; null takes it away. */
export async function showFix(bench: Bench, note: Note | null): Promise<void> {
  wanted = note;
  if (!note) return bench.show(null);
  const found = await fixed(bench, [note], 'Fix');
  if (wanted === note && found) bench.show(found.edit);
}

export async function fix(bench: Bench, note: Note): Promise<void> {
  wanted = null;
  const found = await fixedOnce(bench, [note], `Fix ${noteWords[note.kind].one}`);
  if (!found) return;
  const { edit, left } = found;
  const list = checkingOf(bench)?.store.getState().open ?? [];
  const at = list.findIndex((n) => n.key === note.key);
  const next = list.slice(at + 1).find((n) => n.kind === note.kind) ?? list.find((n) => n.key !== note.key);
  const why = left[0]?.why === 'astray' ? 'Put right, the line would lead away from where it belongs.' : BY_HAND;
  if (!bench.commit(edit, null, why)) return;
  gone(bench, [note.key]);
  if (next) visit(bench, next);
}

const BY_HAND = 'This needs a hand: it cannot be put right by itself.';

/** Why notes are left, in words. */
function whyLeft(left: readonly LeftNote[]): string {
  const astray = left.filter((l) => l.why === 'astray').length;
  const hand = left.length - astray;
  return [
    ...(hand > 0 ? [`${hand} ${hand === 1 ? 'needs' : 'need'} a hand`] : []),
    ...(astray > 0 ? [`${astray} would lead a line away from where it belongs`] : []),
  ].join(', ');
}

/** Each is measured against the ink: of more than these that takes a while, and it is said. */
const MANY_NOTES = 20;

/** Puts all notes of a kind right that can be; says how many were, and shows the first of those that are left. */
export async function fixKind(bench: Bench, kind: NoteKind): Promise<void> {
  const notes = checkingOf(bench)?.openOf(kind) ?? [];
  const words = (count: number): string => `${count} ${count === 1 ? noteWords[kind].one : noteWords[kind].many}`;
  if (notes.length > MANY_NOTES) bench.tell(`Putting ${words(notes.length)} right…`);
  const found = await fixedOnce(bench, notes, `Fix ${words(notes.length)}`);
  if (!found) return;
  const { edit, left } = found;
  if (!bench.commit(edit, null, `Nothing put right, ${left.length} left: ${whyLeft(left)}.`)) return;
  const stays = new Set(left.map((l) => l.note.key));
  gone(
    bench,
    notes.flatMap((n) => (stays.has(n.key) ? [] : [n.key])),
  );
  const done = notes.length - left.length;
  if (left.length === 0) return bench.tell(`${words(done)} put right.`);
  bench.tell(`${words(done)} put right, ${left.length} left: ${whyLeft(left)}.`, {
    label: left.length === 1 ? 'Show it' : 'Show the first',
    run: () => visit(bench, left[0].note),
  });
}

export function wave(bench: Bench, notes: readonly Note[]): void {
  bench.commit(waveThrough(bench.getState().drawing, notes));
}

/** Takes notes off the list until the checks have looked again. */
function gone(bench: Bench, keys: readonly string[]): void {
  const store = checkingOf(bench)?.store;
  store?.setState((c) => ({
    notes: c.notes.filter((n) => !keys.includes(n.key)),
    open: c.open.filter((n) => !keys.includes(n.key)),
  }));
}

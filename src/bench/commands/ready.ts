import { isEmptyBox, joinBoxes } from '@/core/geometry/box';
import { flatsIn, linesOf } from '@/core/drawing/items';
import { shownOutline } from '@/core/drawing/outline';
import { skeletonBox } from '@/core/drawing/run';
import type { NoteKind } from '@/core/check/note';
import type { Bench } from '../state/store';
import { prefer } from '../state/preferences';
import { goTo, visitNext } from './checks';
import { goToStage } from './desk';

/** From what is left to do to its place. */

const AROUND = 40;

/** Chooses items, lines or flats, and shows them. */
export function showItems(bench: Bench, ids: readonly string[]): void {
  const { drawing } = bench.getState();
  const wanted = new Set(ids);
  const lines = drawing.sheets.flatMap(linesOf).filter((l) => wanted.has(l.id));
  const flats = drawing.sheets.flatMap((s) => flatsIn(s.items)).filter((f) => wanted.has(f.id));
  const boxes = [...lines, ...flats.map((f) => ({ runs: shownOutline(f) }))].map(skeletonBox);
  if (boxes.length === 0) return;
  const box = boxes.reduce(joinBoxes);
  bench.setState({ tool: 'select' });
  bench.choose(lines.map((l) => l.id));
  bench.setState({ flats: new Set(flats.map((f) => f.id)) });
  if (!isEmptyBox(box)) goTo(bench, box, AROUND);
}

/** Takes a sheet in hand, and shows its part of the page, or what is on it. */
export function showSheet(bench: Bench, id: string): void {
  const sheet = bench.getState().drawing.sheets.find((s) => s.id === id);
  if (!sheet) return;
  bench.setState({ sheet: id });
  const lines = linesOf(sheet);
  const box = sheet.part ?? (lines.length > 0 ? lines.map((l) => skeletonBox(l)).reduce(joinBoxes) : null);
  if (box) goTo(bench, box, AROUND);
}

/** To the notes of a kind, where they can be dealt with. */
export function showNotes(bench: Bench, kind: NoteKind): void {
  goToStage(bench, 'refine');
  visitNext(bench, 1, kind);
}

/** To the ink that has no line. */
export function showUncovered(bench: Bench, box: Parameters<typeof goTo>[1] | null): void {
  prefer({ coverage: true });
  goToStage(bench, 'refine');
  if (box) goTo(bench, box, AROUND);
}

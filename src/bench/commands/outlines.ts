import { nanoid } from 'nanoid';
import { runFromCubics } from '@/core/drawing/fromCubics';
import { addLine } from '@/core/edits/lines';
import { waveOutline } from '@/core/edits/notes';
import { checkingOf } from '../state/checkingOf';
import type { Bench } from '../state/store';
import { sheetToDraw } from './sheetToDraw';

/** A piece of a photo's outline that has no line made one, on the sheet in hand. */
export async function drawOutline(bench: Bench, reference: string, key: string): Promise<void> {
  const sheet = sheetToDraw(bench, bench.getState().sheet, 'no line is drawn on it');
  if (!sheet) return;
  const cubics = await checkingOf(bench)?.ask.outline(reference, key);
  if (!cubics || cubics.length === 0) return bench.tell('That outline has a line by now.');
  const id = nanoid(10);
  const line = { id, style: { ...sheet.style, fill: null }, runs: [runFromCubics(cubics, false)] };
  if (bench.commit(addLine(bench.getState().drawing, sheet.id, line, 'Draw outline'), [id])) gone(bench, key);
}

/** A piece of a photo's outline needs no line. */
export function passOutline(bench: Bench, key: string): void {
  if (bench.commit(waveOutline(bench.getState().drawing, key))) gone(bench, key);
}

/** Takes a piece off the list until the checks have looked again. */
function gone(bench: Bench, key: string): void {
  const store = checkingOf(bench)?.store;
  store?.setState((c) => ({
    uncovered: c.uncovered.map((u) => ({ ...u, patches: u.patches.filter((p) => p.outline !== key) })),
  }));
}

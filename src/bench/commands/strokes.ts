import type { Style } from '@/core';
import { counted } from '@/core/change/edit';
import { styleLines } from '@/core/edits/lines';
import * as strokes from '@/core/edits/strokes';
import { findLine } from '@/core/drawing/find';
import * as shapeEdits from '@/core/edits/shapes';
import type { MeltWorker } from '@/workers/melt.worker';
import { nanoid } from 'nanoid';
import { LazyWorker } from '../state/lazyWorker';
import type { Bench } from '../state/store';

/** What can be done to the strokes of the chosen lines. */

/** One press of plus or minus. */
const STEP = 1.1;

/** Whether plus and minus are for strokes: in the Ink stage, with lines chosen. */
export const isInking = (bench: Bench): boolean => {
  const { stage, lines } = bench.getState();
  return stage === 'ink' && lines.size > 0;
};

/** A tenth wider, or thinner. */
export function widen(bench: Bench, sign: 1 | -1): void {
  const { drawing, lines } = bench.getState();
  const label = counted(sign > 0 ? 'Widen' : 'Narrow', lines.size, 'line');
  bench.commit(strokes.scaleWidths(drawing, [...lines], STEP ** sign, label));
}

/** Sets the plain width; lines with marks keep their profile, as much wider or thinner on the whole. */
export function setWidth(bench: Bench, width: number): void {
  const { drawing, lines } = bench.getState();
  bench.commit(strokes.setWidths(drawing, [...lines], width, counted('Set width of', lines.size, 'line')));
}

export function setStyle(bench: Bench, style: Partial<Style>, what: string): void {
  const { drawing, lines } = bench.getState();
  bench.commit(styleLines(drawing, lines, style, counted(`Set ${what} of`, lines.size, 'line')));
}

const melting = new LazyWorker<MeltWorker>(
  () => new Worker(new URL('../../workers/melt.worker.ts', import.meta.url), { type: 'module' }),
  'the worker that makes shapes',
);

/** Turns the chosen strokes into shapes: each by itself, or those that touch as one. */
export async function toShapes(bench: Bench, melt: boolean): Promise<void> {
  const { drawing, lines } = bench.getState();
  const wanted = [...lines].flatMap((id) => findLine(drawing, id)?.line ?? []);
  try {
    const shapes = await melting.ask((api) => (melt ? api.together(wanted) : api.apart(wanted)));
    const now = bench.getState().drawing;
    // Only for lines as they were asked for.
    if (wanted.some((l) => findLine(now, l.id)?.line !== l)) return;
    if (shapes.length === 0) return bench.tell('There is no stroke on what is chosen.');
    const label = melt ? counted('Melt', wanted.length, 'stroke') : counted('To shapes:', wanted.length, 'stroke');
    const edit = shapeEdits.strokesToShapes(now, shapes, () => nanoid(10), label);
    bench.commit(edit, edit.shapes);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    bench.tell(`The strokes stay as they are: ${why}.`, undefined, 'warning');
  }
}

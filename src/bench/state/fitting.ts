import { transfer } from 'comlink';
import type { Cubic, Line } from '@/core';
import type { PencilStroke } from '@/core/assist/pencilStroke';
import type { Mark } from '@/core/drawing/schema';
import type { Pressed } from '@/core/ink/pressure';
import type { FitWorker } from '@/workers/fit.worker';
import { LazyWorker } from './lazyWorker';

/** Fits cubics to a stroke within a tolerance in page units; null for one that never left its place. */
export type Fit = (stroke: PencilStroke, tolerance: number) => Promise<Cubic[] | null>;

const worker = new LazyWorker<FitWorker>(
  () => new Worker(new URL('../../workers/fit.worker.ts', import.meta.url), { type: 'module' }),
  'the worker that fits curves',
);

/** Fits in a worker, so that the hand is never held up. A worker that fails rejects, and the next stroke gets a new one. */
export const fitInWorker: Fit = (stroke, tolerance) => {
  const places = new Float64Array(stroke.points.length * 2);
  stroke.points.forEach((p, i) => {
    places[2 * i] = p.x;
    places[2 * i + 1] = p.y;
  });
  return worker.ask((api) => api.stroke(transfer(places, [places.buffer]), stroke.closed, tolerance));
};

/** Has the worker ready before the first stroke asks for it: to start one takes a while. */
export const readyToFit = (): void => void worker.start();

/** What a pencil line was drawn as, so that its smoothing can be changed: for as long as its shape is the one fitted. */
export type Drawn = {
  readonly stroke: PencilStroke;
  readonly unit: number;
  readonly pressed: readonly Pressed[];
  /** The width marks that have been made of its pressure: other ones are a hand's, and stay. */
  readonly made: readonly (readonly Mark[])[];
};

const drawnAs = new WeakMap<Line['runs'], Drawn>();

export const keepDrawn = (runs: Line['runs'], drawn: Drawn): void => void drawnAs.set(runs, drawn);
export const drawnOf = (line: Pick<Line, 'runs'>): Drawn | undefined => drawnAs.get(line.runs);

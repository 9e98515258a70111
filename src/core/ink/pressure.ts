import type { Mark } from '../drawing/schema';
import { thinnedMarks } from './thinMarks';

/** How far a mark thinned away may lie from the way between its neighbours, in page units. */
const THINNING = 0.15;

/** How widths answer to pressure: as shares of the stroke's width at none and at full, and how the way there bends. */
export type Response = { least: number; most: number; bend: number };

/** Full pressure is one and a half times the width, none a fifth of it; the way there is straight. */
export const firstResponse: Response = { least: 0.2, most: 1.5, bend: 0 };

/** The share of the stroke's width at a pressure of 0 to 1. A `bend` above 0 answers early, below 0 late; -1 to 1. */
export const responseTo = (pressure: number, { least, most, bend }: Response): number =>
  least + (most - least) * Math.min(1, Math.max(0, pressure)) ** (4 ** -bend);

/**
 * Width marks from a pen's pressure along a stroke: `samples` are ways along it with the pressure there (0…1). Thinned to
 * as few as keep within a tolerance.
 */
export function marksFromPressure(
  samples: readonly { way: number; pressure: number }[],
  width: number,
  response: Response = firstResponse,
): Mark[] {
  const total = samples.at(-1)?.way ?? 0;
  if (samples.length < 2 || total <= 0) return [];
  const smooth = samples.map((s, i): Mark => {
    const near = samples.slice(Math.max(0, i - 3), i + 4);
    const pressure = near.reduce((sum, n) => sum + n.pressure, 0) / near.length;
    const half = (responseTo(pressure, response) * width) / 2;
    return { at: s.way / total, left: half, right: half };
  });
  return thinnedMarks(smooth, THINNING);
}

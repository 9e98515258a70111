import type { CubicRun } from '../geometry/along';
import { cubicLength } from '../geometry/length';
import type { Point } from '../geometry/point';
import { arrangementOf, type Area } from '../flats/arrangement';
import { SIDE } from './arrangements';
import { FINE, flooded } from './floodFill';

/**
 * Areas beside those that flooding finds: how many it finds; of these that are none or part of another by way of an opening
 * too narrow for it; areas that are not as large, and wide ones that it does not know of.
 */
export type AreaFigures = { flooded: number; narrow: number; otherSize: number; unknown: number };

/** What is no wider than a few of the pixels that lines are drawn with is not told by them. */
const LEAST = 4 / FINE;
/** An area is wide where it is larger than this much of its outline's length, px. */
const WIDE = 0.25;

/** Compares the areas of an arrangement with what flooding finds between the same lines, closed over the same gaps. */
export function measureAreas(runs: readonly CubicRun[], gap: number): AreaFigures {
  const arrangement = arrangementOf(runs, { gap });
  const length = (curves: CubicRun['cubics']): number => curves.reduce((sum, c) => sum + cubicLength(c, 0.1), 0);
  const lines = length(runs.flatMap((r) => r.cubics));
  const closings = arrangement.closings.map((c): [Point, Point] => [c.from, c.to]);
  const sizes = new Map<string, { area: Area; size: number }>();
  const figures: AreaFigures = { flooded: 0, narrow: 0, otherSize: 0, unknown: 0 };
  for (const { deepest, size, depth } of flooded(runs, closings, SIDE)) {
    if (depth < LEAST) continue;
    figures.flooded++;
    const area = arrangement.areaAt(deepest);
    const key = area && JSON.stringify(area.loops);
    if (!key || sizes.has(key)) figures.narrow++;
    if (key) sizes.set(key, { area, size: size + (sizes.get(key)?.size ?? 0) });
  }
  for (const { area, size } of sizes.values()) if (Math.abs(area.size - size) > 0.5 + lines / FINE) figures.otherSize++;
  for (const a of arrangement.areas())
    if (a.size > WIDE * length(a.loops.flat()) && !sizes.has(JSON.stringify(a.loops))) figures.unknown++;
  return figures;
}

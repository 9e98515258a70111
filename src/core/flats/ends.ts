import type { CubicRun } from '../geometry/along';
import { straightCubic, type Cubic } from '../geometry/cubic';
import { distance, samePoint, type Point } from '../geometry/point';

/** The curves of runs, one after the other, with the run of each; and the open ends of the runs. */
export type Curves = {
  readonly cubics: Cubic[];
  readonly run: number[];
  readonly ends: End[];
};

/** An open end: of which run, on which of the curves, and whether it is where that begins. */
export type End = { readonly run: number; readonly curve: number; readonly atStart: boolean; readonly point: Point };

/** A straight segment without handles, which hurries in its middle, as one that goes along evenly. */
const evenly = (c: Cubic): Cubic => (samePoint(c[0], c[1]) && samePoint(c[2], c[3]) ? straightCubic(c[0], c[3]) : c);

/** All curves of runs; a closed run that does not end where it begins is closed by a straight one. */
export function curvesOf(runs: readonly CubicRun[]): Curves {
  const [cubics, of, ends]: [Cubic[], number[], End[]] = [[], [], []];
  runs.forEach(({ cubics: own, closed }, run) => {
    const first = cubics.length;
    for (const c of own) {
      cubics.push(evenly(c));
      of.push(run);
    }
    const [start, end] = [own[0][0], own.at(-1)![3]];
    const isShut = distance(start, end) === 0;
    if (closed && !isShut) {
      cubics.push(straightCubic(end, start));
      of.push(run);
    }
    if (closed || isShut) return;
    ends.push({ run, curve: first, atStart: true, point: start });
    ends.push({ run, curve: cubics.length - 1, atStart: false, point: end });
  });
  return { cubics, run: of, ends };
}

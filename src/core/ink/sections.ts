import { shownCubics } from '../drawing/rounding';
import type { Line, Run } from '../drawing/schema';
import { arcLengthOf, speedOver, type ArcLength } from '../geometry/arcLength';
import { derivative, evaluate, straightCubic, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { unit, type Point } from '../geometry/point';
import type { Section } from './nibs/nib';
import { widthProfile } from './widths';
import { marksOn } from './profiles';

const runs = new WeakMap<Run, { cubics: Cubic[]; arc: ArcLength }>();

/** A run's cubics and their length, measured once for as long as it is the same. */
function measured(run: Run): { cubics: Cubic[]; arc: ArcLength } {
  let known = runs.get(run);
  if (!known) {
    const { point } = run.nodes[0];
    const cubics = run.nodes.length > 1 || run.closed ? shownCubics(run) : [straightCubic(point, point)];
    runs.set(run, (known = { cubics, arc: arcLengthOf(cubics) }));
  }
  return known;
}

/** The place and the widths at a share of the length of one of a line's runs: the width marks are shares of each. */
export function sectionAt(line: Pick<Line, 'runs' | 'style' | 'marks'>, at: number, run = 0): Section {
  const { cubics, arc } = measured(line.runs[run]);
  const place = arc.at(at * arc.length);
  const { left, right } = widthProfile(marksOn(line), line.runs[run].closed).at(at);
  return {
    p: evaluate(cubics[place.segment], place.t),
    along: directionOn(cubics[place.segment], place.t),
    left,
    right,
  };
}

/** The direction of a cubic, from close by where it stands still. */
export const directionOn = (c: Cubic, t: number): Point =>
  unit(derivative(c, t)) ?? unit(derivative(c, t < 0.5 ? t + 1e-3 : t - 1e-3)) ?? { x: 1, y: 0 };

/** A place on a line: the number of the run, the share of that run's length, and how far off it is. */
export type NearShare = { readonly run: number; readonly at: number; readonly distance: number };

/** The share of a line's run that lies nearest to a place, on whichever run it is; or on the one that is given. */
export function shareNear(line: Pick<Line, 'runs'>, p: Point, only?: number): NearShare {
  let best = { run: only ?? 0, segment: 0, t: 0, distance: Infinity };
  line.runs.forEach((r, run) => {
    if (only !== undefined && only !== run) return;
    measured(r).cubics.forEach((c, segment) => {
      const near = nearestOnCubic(c, p);
      if (near.distance < best.distance) best = { run, segment, t: near.t, distance: near.distance };
    });
  });
  const { cubics, arc } = measured(line.runs[best.run]);
  let travelled = arcLengthOf(cubics.slice(0, best.segment)).length;
  // In parts: the quadrature is for short pieces.
  for (let i = 0; i < 8; i++) travelled += speedOver(cubics[best.segment], (best.t * i) / 8, (best.t * (i + 1)) / 8);
  return { run: best.run, at: arc.length > 0 ? Math.min(1, travelled / arc.length) : 0, distance: best.distance };
}

import { measureLine, type LineDistance } from '../../check/lineDistance';
import type { Pictures } from '../../check/pictures';
import { referenceBeneath } from '../../drawing/beneath';
import { cubicsOf, lineLength } from '../../drawing/run';
import type { Drawing, Line } from '../../drawing/schema';
import { awayFrom } from '../../geometry/stray';
import { restStays, type Judge } from './judge';

/** A line with ink beneath less of it than this is judged by itself. */
const INKED = 0.5;
/** What is led on over a gap may have so much less ink beneath, page units. */
const BARE = 10;
/** A loop so long, of which so much lies so near to the ink, is the picture's own: page units, a share, px. */
const LOOP = 16;
const MOST_OF_IT = 0.85;
const ON_INK = 1.5;
/** Its furthest place may be so much further off: a single place by a crossing says little, px. */
const FURTHEST = 0.5;
/** What lies so near to the line is still there. */
const SAME = 0.5;

/**
 * Judges by the ink beneath: a fix must not bring a line further from it, in the mean, over the best 95 % of it or at the
 * furthest, nor off the ink. A line that has no picture beneath, or hardly any ink, is judged by where it was. `reach` in
 * px of the corrected picture.
 */
export function inkJudge(d: Drawing, pictures: Pictures, reach: number): Judge {
  const known = new WeakMap<Line['runs'], LineDistance | null>();
  const distanceOf = (line: Line): LineDistance | null => {
    let found = known.get(line.runs);
    if (found === undefined) {
      const r = referenceBeneath(d, line);
      const image = r && pictures.get(r.id);
      found = r && image ? measureLine(line, r, image, reach).distance : null;
      known.set(line.runs, found);
    }
    return found;
  };
  return (before, after, at, around) => {
    const was = distanceOf(before);
    if (!was || was.inked < INKED) return restStays(before, after, at, around);
    const now = distanceOf(after);
    if (!now) return Infinity;
    const bare = (l: Line, x: LineDistance): number => (1 - x.inked) * lineLength(l);
    if (bare(after, now) > bare(before, was) + BARE) return Infinity;
    if (around === Infinity && isDrawn(was, after)) return Infinity;
    return Math.max(now.p95 - was.p95, now.mean - was.mean, now.max - was.max - FURTHEST);
  };
}

/** Whether what a line loses is there in the ink. */
function isDrawn({ places }: LineDistance, after: Line): boolean {
  const curves = after.runs.flatMap(cubicsOf);
  const lost: number[] = [];
  let length = 0;
  for (let i = 0; i < places.length; i += 4) {
    const p = { x: places[i], y: places[i + 1] };
    if (awayFrom(curves, p) <= SAME) continue;
    lost.push(places[i + 3]);
    if (i > 0) length += Math.hypot(p.x - places[i - 4], p.y - places[i - 3]);
  }
  return length >= LOOP && lost.filter((d) => d <= ON_INK).length >= MOST_OF_IT * lost.length;
}

import { straightCubic, type Cubic } from '../geometry/cubic';
import { cross, distance, dot, lengthOf, subtract, type Point } from '../geometry/point';

/**
 * A closed outline without spikes: pieces that come straight back along the one before them enclose nothing, and go, as
 * far as they lie on each other. Places nearer than `same` are one, page units. What is left may be nothing.
 */
export function withoutSpikes(outline: readonly Cubic[], same = 1e-6): Cubic[] {
  const kept: Cubic[] = [];
  for (const c of outline) lay(kept, c, same);
  // The seam is a place like any other.
  while (kept.length > 1) {
    const [first, ...around] = kept;
    lay(around, first, same);
    if (around.length === kept.length) break;
    kept.splice(0, kept.length, ...around);
  }
  return kept.length > 1 ? kept : kept.filter((c) => !isStraight(c, same));
}

/** Lays a piece behind others; what it takes back of them is taken off. */
function lay(kept: Cubic[], [from, ...rest]: Cubic, same: number): void {
  const last = kept.at(-1);
  const next: Cubic = [last && distance(last[3], from) < same ? last[3] : from, ...rest];
  if (distance(next[0], next[3]) < same && isStraight(next, same)) return;
  if (!last || last[3] !== next[0]) return void kept.push(next);
  if (last.every((p, i) => distance(p, next[3 - i]) < same)) return void kept.pop();
  if (!isStraight(last, same) || !isStraight(next, same)) return void kept.push(next);
  const [into, back] = [subtract(last[3], last[0]), subtract(next[3], next[0])];
  const [a, b] = [lengthOf(into), lengthOf(back)];
  if (dot(into, back) >= 0 || Math.abs(cross(into, back)) > same * Math.max(a, b)) return void kept.push(next);
  kept.pop();
  // It turned at the spike's tip: from where it began, straight to where it is now.
  lay(kept, straightCubic(last[0], next[3]), same);
}

function isStraight([a, b, c, d]: Cubic, same: number): boolean {
  const whole = distance(a, d);
  if (whole < same) return distance(a, b) < same && distance(a, c) < same;
  const off = (p: Point): number => Math.abs(cross(subtract(d, a), subtract(p, a)));
  const along = (p: Point): number => dot(subtract(p, a), subtract(d, a)) / (whole * whole);
  return [b, c].every((p) => off(p) <= same * whole && along(p) > -1e-9 && along(p) < 1 + 1e-9);
}

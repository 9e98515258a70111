import { derivative, evaluate } from '../geometry/cubic';
import { intersectCubics } from '../geometry/intersection';
import { distance, mix, unit, type Point } from '../geometry/point';
import { isWithin } from '../geometry/polygon';
import type { Part } from './edge';
import { between } from './fitTrack';
import type { Contact } from './side';

/** Loops are looked for this far to both sides of where the edge goes inside, in radii of the stroke. */
const FAR = 6;
/** Places tried in each loop. */
const TRIED = 24;

/**
 * An edge without the loops that it makes inside the body: where it crosses itself on either side of a way inside, it
 * goes over from one curve to the other there. What such a loop encloses is as a rule within the body twice; `enclosed`
 * are places in the loops that are left out, at which that can be tried.
 */
export function withoutLoops(parts: readonly Part[], closed: boolean): { parts: Part[]; enclosed: Point[] } {
  const clean = parts.map((p) => ({ ...p }));
  const enclosed: Point[] = [];
  for (let k = 0; k < clean.length; k++) {
    const part = clean[k];
    if (part.kind !== 'inside') continue;
    const before = clean[k - 1] ?? (closed ? clean.at(-1) : undefined);
    const after = clean[k + 1] ?? (closed ? clean[0] : undefined);
    if (before?.kind !== 'curve' || after?.kind !== 'curve') continue;
    const found = crossing(before.at, after.at, before === after);
    if (!found) continue;
    const { i, j, a, b } = found;
    enclosed.push(...placesIn([a, ...before.at.slice(i + 1), ...part.at, ...after.at.slice(0, j + 1)]));
    if (before === after) before.at = [b, ...before.at.slice(j + 1, i + 1), a];
    else {
      before.at = [...before.at.slice(0, i + 1), a];
      after.at = [b, ...after.at.slice(j + 1)];
    }
    clean.splice(k--, 1);
  }
  return { parts: clean, enclosed };
}

/** Places in a loop: a little way in from its corners. */
function placesIn(loop: readonly Point[]): Point[] {
  const every = Math.ceil(loop.length / TRIED);
  return loop.flatMap((p, k) => {
    if (k % every !== 0) return [];
    const [a, b] = [loop[(k + loop.length - 1) % loop.length], loop[(k + 1) % loop.length]];
    const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
    return [mix(p, middle, 0.6), mix(p, loop[(k + (loop.length >> 1)) % loop.length], 0.2)].filter((q) =>
      isWithin(q, loop),
    );
  });
}

/** Where the end of one curve crosses the start of another: behind which places, and the crossing on both. */
function crossing(
  before: readonly Contact[],
  after: readonly Contact[],
  same: boolean,
): { i: number; j: number; a: Contact; b: Contact } | null {
  const far = FAR * Math.max(before.at(-1)!.radius, after[0].radius);
  let travelled = 0;
  for (let i = before.length - 2; i >= 0 && travelled < far; i--) {
    const [p, q] = [before[i], before[i + 1]];
    travelled += distance(p, q);
    let other = 0;
    for (let j = 0; j + 1 < after.length && other < far && !(same && j >= i); j++) {
      const [r, s] = [after[j], after[j + 1]];
      other += distance(r, s);
      if (!cross(p, q, r, s)) continue;
      const [c, d] = [between(p, q), between(r, s)];
      const hit = intersectCubics(c, d)[0];
      if (!hit) continue;
      const on = (contact: Contact, curve: typeof c, t: number): Contact => {
        const along = unit(derivative(curve, t)) ?? { x: contact.dx, y: contact.dy };
        return { ...contact, ...evaluate(c, hit.ta), dx: along.x, dy: along.y };
      };
      return { i, j, a: on(p, c, hit.ta), b: on(r, d, hit.tb) };
    }
  }
  return null;
}

/** Whether two straight pieces cross. */
function cross(p: Point, q: Point, r: Point, s: Point): boolean {
  if (Math.max(p.x, q.x) < Math.min(r.x, s.x) || Math.max(r.x, s.x) < Math.min(p.x, q.x)) return false;
  if (Math.max(p.y, q.y) < Math.min(r.y, s.y) || Math.max(r.y, s.y) < Math.min(p.y, q.y)) return false;
  const side = (a: Point, b: Point, c: Point): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
  return side(p, q, r) * side(p, q, s) <= 0 && side(r, s, p) * side(r, s, q) <= 0;
}

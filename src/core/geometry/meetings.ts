import { hullBox } from './bounds';
import { derivative, evaluate, secondDerivative, splitAt, type Cubic } from './cubic';
import { cross, distance, dot, lengthOf, subtract, type Point } from './point';

/** A parameter on each of two curves. */
export type Meeting = { ta: number; tb: number };

type Piece = { cubic: Cubic; from: number; to: number };

const MOST_PAIRS = 200_000;

/** Crossings and touching places of two curves that share no stretch; a place may be given more than once. */
export function meetingsOfPieces(a: Cubic, b: Cubic, touch: number): Meeting[] {
  const found: Meeting[] = [];
  const pairs: [Piece, Piece][] = [
    [
      { cubic: a, from: 0, to: 1 },
      { cubic: b, from: 0, to: 1 },
    ],
  ];
  for (let visited = 0; pairs.length > 0 && visited < MOST_PAIRS; visited++) {
    const [p, q] = pairs.pop()!;
    if (!mayMeet(p.cubic, q.cubic, touch)) continue;
    if (conesDisjoint(p.cubic, q.cubic)) {
      const m = crossingFrom(a, b, (p.from + p.to) / 2, (q.from + q.to) / 2, touch);
      if (m && holds(p, m.ta) && holds(q, m.tb)) {
        found.push(m);
        continue;
      }
    }
    const [flatP, flatQ] = [isStraight(p.cubic, touch / 4), isStraight(q.cubic, touch / 4)];
    const small = sizeOf(p.cubic) <= touch && sizeOf(q.cubic) <= touch;
    const spent = Math.max(p.to - p.from, q.to - q.from) < 1e-15;
    if ((flatP && flatQ) || small || spent) {
      found.push(...atTheLimit(a, b, p, q, touch));
      continue;
    }
    pairs.push(...halvedPairs(p, q));
  }
  return found;
}

/** Whether two curves may come within `touch` of each other, as far as their boxes and their fat lines tell. */
export const mayMeet = (p: Cubic, q: Cubic, touch: number): boolean =>
  hullsMeet(p, q, touch) && !parted(p, q, touch) && !parted(q, p, touch);

/** Whether the boxes of two curves' control points come within `touch` of each other. */
function hullsMeet([a, b, c, d]: Cubic, [e, f, g, h]: Cubic, touch: number): boolean {
  return (
    Math.min(a.x, b.x, c.x, d.x) - touch <= Math.max(e.x, f.x, g.x, h.x) &&
    Math.min(e.x, f.x, g.x, h.x) <= Math.max(a.x, b.x, c.x, d.x) + touch &&
    Math.min(a.y, b.y, c.y, d.y) - touch <= Math.max(e.y, f.y, g.y, h.y) &&
    Math.min(e.y, f.y, g.y, h.y) <= Math.max(a.y, b.y, c.y, d.y) + touch
  );
}

/** The four pairs of halves; or two, when one of the pieces is far the smaller. */
function halvedPairs(p: Piece, q: Piece): [Piece, Piece][] {
  const [sp, sq] = [sizeOf(p.cubic), sizeOf(q.cubic)];
  const ps = sq > 8 * sp ? [p] : halves(p);
  const qs = sp > 8 * sq ? [q] : halves(q);
  return ps.flatMap((x) => qs.map((y): [Piece, Piece] => [x, y]));
}

function halves({ cubic, from, to }: Piece): Piece[] {
  const [left, right] = splitAt(cubic, 0.5);
  const middle = (from + to) / 2;
  return [
    { cubic: left, from, to: middle },
    { cubic: right, from: middle, to },
  ];
}

function sizeOf(c: Cubic): number {
  const h = hullBox(c);
  return Math.max(h.maxX - h.minX, h.maxY - h.minY);
}

/** Whether every control point lies within `within` of the chord's line. A piece shrunk to a point is straight. */
export function isStraight(c: Cubic, within: number): boolean {
  const far = [c[1], c[2], c[3]].reduce((f, p) => (distance(p, c[0]) > distance(f, c[0]) ? p : f), c[0]);
  const along = subtract(far, c[0]);
  const l = lengthOf(along);
  if (l <= within) return true;
  return c.every((p) => Math.abs(cross(along, subtract(p, c[0]))) <= within * l);
}

/** Whether the fat line along the chord of `p` keeps `q` at more than `touch`. */
function parted(p: Cubic, q: Cubic, touch: number): boolean {
  const along = subtract(p[3], p[0]);
  const l = lengthOf(along);
  if (l === 0) return false;
  const off = (r: Point): number => (along.x * (r.y - p[0].y) - along.y * (r.x - p[0].x)) / l;
  const [a, b] = [off(p[1]), off(p[2])];
  const [least, most] = [Math.min(0, a, b), Math.max(0, a, b)];
  const [c, d, e, f] = [off(q[0]), off(q[1]), off(q[2]), off(q[3])];
  return Math.min(c, d, e, f) > most + touch || Math.max(c, d, e, f) < least - touch;
}

/**
 * Whether no tangent of one curve is parallel to a tangent of the other: the ranges of directions of their control
 * legs, each under a quarter turn, do not meet. Such curves cross once at most.
 */
function conesDisjoint(p: Cubic, q: Cubic): boolean {
  const a = coneOf(p);
  const b = coneOf(q);
  if (!a || !b) return false;
  const apart = Math.abs(wrapHalf(a.middle - b.middle));
  return apart > a.half + b.half + 1e-9;
}

/** An angle between undirected lines, brought into −π/2…π/2. */
const wrapHalf = (angle: number): number => angle - Math.PI * Math.round(angle / Math.PI);

function coneOf(c: Cubic): { middle: number; half: number } | null {
  let low = 0;
  let high = 0;
  let base: number | null = null;
  const scale = Math.max(distance(c[0], c[1]), distance(c[1], c[2]), distance(c[2], c[3]));
  if (scale === 0) return null;
  for (let i = 0; i < 3; i++) {
    const leg = subtract(c[i + 1], c[i]);
    if (lengthOf(leg) <= scale * 1e-12) continue;
    const angle = Math.atan2(leg.y, leg.x);
    base ??= angle;
    const turn = angle - base - 2 * Math.PI * Math.round((angle - base) / (2 * Math.PI));
    low = Math.min(low, turn);
    high = Math.max(high, turn);
  }
  if (base === null || high - low >= Math.PI / 2) return null;
  return { middle: base + (low + high) / 2, half: (high - low) / 2 };
}

function holds(p: Piece, t: number): boolean {
  const margin = Math.max(1e-12, (p.to - p.from) * 1e-6);
  return t >= p.from - margin && t <= p.to + margin;
}

const clamp = (t: number): number => Math.min(1, Math.max(0, t));

/** Newton's method for a(s) = b(u) from a first guess; null when it does not arrive within 0…1. */
function crossingFrom(a: Cubic, b: Cubic, ta: number, tb: number, touch: number): Meeting | null {
  let [s, u] = [ta, tb];
  for (let i = 0; i < 24; i++) {
    const gap = subtract(evaluate(a, s), evaluate(b, u));
    // Beyond this, rounding would throw a nearly parallel pair off again.
    if (lengthOf(gap) <= touch * 1e-5) break;
    const [da, db] = [derivative(a, s), derivative(b, u)];
    const determinant = cross(da, db);
    if (determinant === 0) return null;
    const ds = cross(gap, db) / determinant;
    const du = cross(gap, da) / determinant;
    s -= ds;
    u -= du;
    if (!(s > -1 && s < 2 && u > -1 && u < 2)) return null;
    if (Math.abs(ds) + Math.abs(du) < 4e-16) break;
  }
  const m = { ta: clamp(s), tb: clamp(u) };
  return distance(evaluate(a, m.ta), evaluate(b, m.tb)) <= touch ? m : null;
}

/**
 * Two pieces that cannot be told apart by subdivision any more: a crossing, if Newton's method arrives at one close
 * by; else the place of parallel tangents between them, if the curves touch there.
 */
function atTheLimit(a: Cubic, b: Cubic, p: Piece, q: Piece, touch: number): Meeting[] {
  const [ta, tb] = [(p.from + p.to) / 2, (q.from + q.to) / 2];
  const near = (m: Meeting, widths: number) =>
    Math.abs(m.ta - ta) <= widths * (p.to - p.from) + 1e-9 && Math.abs(m.tb - tb) <= widths * (q.to - q.from) + 1e-9;
  const close = (m: Meeting) => distance(evaluate(a, m.ta), evaluate(b, m.tb)) <= touch;
  const touching = touchingFrom(a, b, ta, tb);
  if (near(touching, 100) && close(touching)) return [touching];
  const crossing = crossingFrom(a, b, ta, tb, touch);
  if (crossing && near(crossing, 4)) return [crossing];
  return close({ ta, tb }) ? [{ ta, tb }] : [];
}

/** The exact place where two curves touch, from a meeting close by; the meeting itself where they cross. */
export function sharpened(a: Cubic, b: Cubic, m: Meeting, touch: number): Meeting {
  const [da, db] = [derivative(a, m.ta), derivative(b, m.tb)];
  if (Math.abs(cross(da, db)) > 1e-3 * lengthOf(da) * lengthOf(db)) return m;
  const t = touchingFrom(a, b, m.ta, m.tb);
  const moved = distance(evaluate(a, t.ta), evaluate(a, m.ta));
  return moved < touch * 1e7 && distance(evaluate(a, t.ta), evaluate(b, t.tb)) <= touch ? t : m;
}

/** Newton's method for parallel tangents with the gap at right angles to them; clamped to the curves. */
export function touchingFrom(a: Cubic, b: Cubic, ta: number, tb: number): Meeting {
  let [s, u] = [ta, tb];
  for (let i = 0; i < 12; i++) {
    const gap = subtract(evaluate(a, s), evaluate(b, u));
    const [da, db] = [derivative(a, s), derivative(b, u)];
    const [dda, ddb] = [secondDerivative(a, s), secondDerivative(b, u)];
    const f = cross(da, db);
    const g = dot(gap, da);
    const [fs, fu] = [cross(dda, db), cross(da, ddb)];
    const [gs, gu] = [dot(da, da) + dot(gap, dda), -dot(db, da)];
    const determinant = fs * gu - fu * gs;
    if (determinant === 0) break;
    const ds = (f * gu - fu * g) / determinant;
    const du = (fs * g - gs * f) / determinant;
    if (!Number.isFinite(ds) || !Number.isFinite(du)) break;
    s = clamp(s - ds);
    u = clamp(u - du);
    if (Math.abs(ds) + Math.abs(du) < 1e-16) break;
  }
  return { ta: s, tb: u };
}

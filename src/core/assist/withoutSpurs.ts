import { distance, mix, type Point } from '../geometry/point';

/** A way that turns by more than this, and goes on as it came, has a spur there; degrees. */
const TURN = 35;
const GOES_ON = 18;
/** The turn is taken over so much of the way to each side, px; how it comes and goes on between these. */
const AT = 4;
const [NEAR, FAR] = [9, 28];
/** What lies further beside the way is no spur, px. */
const BESIDE = 4;
/** A gap is bridged by places so far apart, px. */
const SPACING = 2;

/**
 * Places along a way, px, without the spurs in which it runs aside and back where what was followed is not sure: there it turns
 * sharply, yet goes on as it came. A corner does not.
 */
export function withoutSpurs(points: readonly Point[]): Point[] {
  const along = [0];
  for (let i = 1; i < points.length; i++) along.push(along[i - 1] + distance(points[i - 1], points[i]));
  const dropped = new Uint8Array(points.length);
  points.forEach((p, i) => {
    const at = (by: number): Point | null => placeAt(points, along, i, by);
    const [a, b, far, farther, before, beforeThat] = [at(-AT), at(AT), at(NEAR), at(FAR), at(-NEAR), at(-FAR)];
    if (!a || !b || !far || !farther || !before || !beforeThat) return;
    const isSharp = angleBetween(a, p, p, b) > TURN;
    const goesOn =
      angleBetween(beforeThat, before, far, farther) < GOES_ON &&
      angleBetween(beforeThat, before, before, far) < GOES_ON;
    if (!isSharp || !goesOn || besideOf(before, far, p) > BESIDE) return;
    for (let k = i; k >= 0 && along[i] - along[k] < NEAR; k--) dropped[k] = 1;
    for (let k = i; k < points.length && along[k] - along[i] < NEAR; k++) dropped[k] = 1;
  });
  return bridged(points, dropped);
}

/** The places that are kept, and even ones between those that a gap lies between. */
function bridged(points: readonly Point[], dropped: Uint8Array): Point[] {
  const kept: Point[] = [];
  let isGap = false;
  points.forEach((p, i) => {
    if (dropped[i]) {
      isGap = true;
      return;
    }
    const last = kept.at(-1);
    const steps = isGap && last ? Math.max(1, Math.round(distance(last, p) / SPACING)) : 1;
    for (let k = 1; k < steps; k++) kept.push(mix(last!, p, k / steps));
    kept.push(p);
    isGap = false;
  });
  return kept;
}

/** The place so far along the way from another; null beyond its ends. */
function placeAt(points: readonly Point[], along: readonly number[], from: number, by: number): Point | null {
  const step = Math.sign(by);
  let k = from;
  while (Math.abs(along[k] - along[from]) < Math.abs(by)) {
    k += step;
    if (k < 0 || k >= points.length) return null;
  }
  return points[k];
}

/** The angle between two steps, degrees. */
function angleBetween(a: Point, b: Point, c: Point, d: Point): number {
  const turn = Math.atan2(d.y - c.y, d.x - c.x) - Math.atan2(b.y - a.y, b.x - a.x);
  return Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) * (180 / Math.PI);
}

/** How far a place lies beside the line through two others. */
const besideOf = (a: Point, b: Point, p: Point): number =>
  Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / (distance(a, b) || 1);

import { scalingAbout, skewingAbout, turningAbout, identity, type Matrix } from './matrix';
import { distance, dot, subtract, type Box, type Point } from './point';

/** What a frame around something is taken hold of by; -1 and 1 are its low and high sides, 0 its middle. */
export type FrameGrip =
  | { readonly deed: 'scale'; readonly x: -1 | 0 | 1; readonly y: -1 | 0 | 1 }
  | { readonly deed: 'turn'; readonly x: -1 | 1; readonly y: -1 | 1 }
  | { readonly deed: 'slant'; readonly axis: 'across' | 'down' };

/** What is held along with a grip: proportions kept, angles in steps, all of it about the origin. */
export type FrameHeld = { readonly keep: boolean; readonly steps: boolean; readonly aboutOrigin: boolean };

/** What became of a frame: its map, and its figures: shares of the size, or degrees. */
export type Framed = { readonly map: Matrix; readonly figures: readonly number[]; readonly unit: '%' | '°' };

/** Something is never scaled to less than this share of itself, nor slanted by more than so many degrees. */
const [LEAST, STEEPEST] = [0.005, 80];
/** Angles held to steps, degrees: of a turn, and of a slant. */
const [TURN_STEP, SLANT_STEP] = [15, 5];
/** Lengths below this, page units, have no direction. */
const TINY = 1e-9;

const nothing = (unit: '%' | '°'): Framed => ({
  map: identity,
  figures: unit === '%' ? [1, 1] : [0],
  unit,
});

/** The places of a box by its shares: 0 its low sides, 0.5 its middle, 1 its high sides. */
export const placeInBox = (b: Box, share: Point): Point => ({
  x: b.minX + (b.maxX - b.minX) * share.x,
  y: b.minY + (b.maxY - b.minY) * share.y,
});

/**
 * The affine map of what is in `box` when one of its grips is dragged from a place to another. Scaling leaves the opposite
 * side where it is, or the origin if that is held; turning and slanting leave the origin.
 */
export function frameMap(
  grip: FrameGrip,
  box: Box,
  [from, to]: readonly [Point, Point],
  origin: Point,
  held: FrameHeld,
): Framed {
  if (grip.deed === 'scale') return scaled(grip, box, subtract(to, from), origin, held);
  if (grip.deed === 'turn') return turned(from, to, origin, held.steps);
  return slanted(grip.axis, box, [from, to], origin, held.steps);
}

function scaled(
  { x, y }: { x: -1 | 0 | 1; y: -1 | 0 | 1 },
  box: Box,
  by: Point,
  origin: Point,
  { keep, aboutOrigin }: FrameHeld,
): Framed {
  const share = (v: -1 | 0 | 1): number => (v + 1) / 2;
  const side = placeInBox(box, { x: share(x), y: share(y) });
  const opposite = placeInBox(box, { x: 1 - share(x), y: 1 - share(y) });
  const about = aboutOrigin ? origin : opposite;
  const reach = subtract(side, about);
  // A side that the origin lies on has nowhere to go.
  const grows = { x: x !== 0 && Math.abs(reach.x) > TINY, y: y !== 0 && Math.abs(reach.y) > TINY };
  if (!grows.x && !grows.y) return nothing('%');
  let [kx, ky] = [grows.x ? (reach.x + by.x) / reach.x : 1, grows.y ? (reach.y + by.y) / reach.y : 1];
  if (keep && grows.x && grows.y) {
    const along = dot({ x: reach.x + by.x, y: reach.y + by.y }, reach) / dot(reach, reach);
    [kx, ky] = [along, along];
  } else if (keep) [kx, ky] = grows.x ? [kx, Math.abs(kx)] : [Math.abs(ky), ky];
  [kx, ky] = [kept(kx), kept(ky)];
  return { map: scalingAbout(about, kx, ky), figures: [kx, ky], unit: '%' };
}

const kept = (k: number): number => (Math.abs(k) < LEAST ? LEAST * (k < 0 ? -1 : 1) : k);

function turned(from: Point, to: Point, origin: Point, steps: boolean): Framed {
  if (distance(from, origin) < TINY || distance(to, origin) < TINY) return nothing('°');
  const angle = (p: Point): number => (Math.atan2(p.y - origin.y, p.x - origin.x) * 180) / Math.PI;
  let degrees = angle(to) - angle(from);
  if (steps) degrees = Math.round(degrees / TURN_STEP) * TURN_STEP;
  degrees = degrees > 180 ? degrees - 360 : degrees <= -180 ? degrees + 360 : degrees;
  return { map: turningAbout(origin, degrees), figures: [degrees], unit: '°' };
}

/** Slanting across leans upright lines, by the upper side; slanting down leans level ones, by the right side. */
function slanted(
  axis: 'across' | 'down',
  box: Box,
  [from, to]: readonly [Point, Point],
  origin: Point,
  steps: boolean,
): Framed {
  const isAcross = axis === 'across';
  const reach = isAcross ? box.minY - origin.y : box.maxX - origin.x;
  const by = isAcross ? to.x - from.x : to.y - from.y;
  if (Math.abs(reach) < TINY) return nothing('°');
  let degrees = (Math.atan(by / reach) * 180) / Math.PI;
  if (steps) degrees = Math.round(degrees / SLANT_STEP) * SLANT_STEP;
  degrees = Math.max(-STEEPEST, Math.min(STEEPEST, degrees));
  const map = isAcross ? skewingAbout(origin, degrees, 0) : skewingAbout(origin, 0, degrees);
  return { map, figures: [degrees], unit: '°' };
}

/** A frame's grips, each at its place: `pad` page units outside the box, those that turn and slant `beyond` as far again. */
export function frameGrips(box: Box, pad: number, beyond: number): readonly { grip: FrameGrip; at: Point }[] {
  const [middle, wide, high] = [
    placeInBox(box, { x: 0.5, y: 0.5 }),
    (box.maxX - box.minX) / 2 + pad,
    (box.maxY - box.minY) / 2 + pad,
  ];
  const at = (x: number, y: number, out = { x: 0, y: 0 }): Point => ({
    x: middle.x + x * wide + out.x,
    y: middle.y + y * high + out.y,
  });
  const ends = [-1, 1] as const;
  const [isWide, isHigh] = [box.maxX - box.minX > TINY, box.maxY - box.minY > TINY];
  const corners = ends.flatMap((y) => ends.map((x) => ({ x, y })));
  return [
    ...(isWide && isHigh ? corners.map((c) => ({ grip: { deed: 'scale', ...c } as const, at: at(c.x, c.y) })) : []),
    ...ends.flatMap((v) => [
      ...(isWide ? [{ grip: { deed: 'scale', x: v, y: 0 } as const, at: at(v, 0) }] : []),
      ...(isHigh ? [{ grip: { deed: 'scale', x: 0, y: v } as const, at: at(0, v) }] : []),
    ]),
    ...corners.map((c) => ({
      grip: { deed: 'turn', ...c } as const,
      at: at(c.x, c.y, { x: c.x * beyond, y: c.y * beyond }),
    })),
    ...(isHigh ? [{ grip: { deed: 'slant', axis: 'across' } as const, at: at(0, -1, { x: 0, y: -beyond }) }] : []),
    ...(isWide ? [{ grip: { deed: 'slant', axis: 'down' } as const, at: at(1, 0, { x: beyond, y: 0 }) }] : []),
  ];
}

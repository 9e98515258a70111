import { outlineBox, polygonOf } from '../drawing/outline';
import { toneOf } from '../colour/tone';
import type { Drawing, Flat, Run } from '../drawing/schema';
import type { Beneath } from './takeColours';
import { shownFlat } from '../scene/shownFlat';
import { opaqueColourOf } from '../scene/ink';
import { boxesMeet, growBox } from '../geometry/box';
import { indexOfBoxes } from '../geometry/boxIndex';
import type { Box, Point } from '../geometry/point';

/** How far a flat's tone is from the picture's: above 0 the flat is the lighter. OKLab lightness, 0…1. */
export type ToneDistance = {
  readonly flat: Flat;
  readonly colour: string;
  readonly tone: number;
  readonly picture: number;
  readonly distance: number;
  /** Pixels of the picture that it covers. */
  readonly pixels: number;
};

/** The tone distances of flats beneath which there is a picture, the worst first. */
export function toneDistances(
  d: Drawing,
  flats: readonly Flat[],
  beneath: ReadonlyMap<string, Beneath>,
): ToneDistance[] {
  return flats
    .flatMap((flat): ToneDistance[] => {
      const own = beneath.get(flat.id);
      if (!own) return [];
      const colour = opaqueColourOf(d, flat.fill, shownFlat(flat));
      const [tone, picture] = [toneOf(colour), own.lab[0]];
      return [{ flat, colour, tone, picture, distance: tone - picture, pixels: own.pixels }];
    })
    .sort((a, b) => Math.abs(b.distance) - Math.abs(a.distance));
}

/** Neighbours are too near in tone below this: on a squint they are one. */
export const TOO_NEAR = 0.04;
/** Outlines this near to each other are one border, page units; and how much of it there must be. */
const BORDER = { near: 1.5, least: 6, share: 0.04 };

type Side = { readonly from: Point; readonly to: Point; readonly flat: number };

const sidesOf = (runs: readonly Run[], flat: number): Side[] =>
  runs.flatMap((run) => {
    const polygon = polygonOf(run);
    return polygon.map((from, i) => ({ from, to: polygon[(i + 1) % polygon.length], flat }));
  });

const boxOfSide = ({ from, to }: Side): Box => ({
  minX: Math.min(from.x, to.x),
  minY: Math.min(from.y, to.y),
  maxX: Math.max(from.x, to.x),
  maxY: Math.max(from.y, to.y),
});

/** Pairs of flats, by their places in the list, that share a border. */
export function neighbours(flats: readonly Flat[]): [number, number][] {
  const sides = flats.flatMap((f, i) => sidesOf(f.runs, i));
  if (sides.length === 0) return [];
  const index = indexOfBoxes(sides.map(boxOfSide));
  const found: [number, number][] = [];
  const lengths = flats.map(() => 0);
  const shared = new Map<string, number>();
  for (const s of sides) {
    const long = Math.hypot(s.to.x - s.from.x, s.to.y - s.from.y);
    lengths[s.flat] += long;
    const middle = { x: (s.from.x + s.to.x) / 2, y: (s.from.y + s.to.y) / 2 };
    const { minX, minY, maxX, maxY } = growBox(boxOfPlace(middle), BORDER.near);
    const beside = new Set<number>();
    for (const i of index.search(minX, minY, maxX, maxY))
      if (sides[i].flat !== s.flat && away(middle, sides[i]) < BORDER.near) beside.add(sides[i].flat);
    for (const other of beside) {
      const key = `${s.flat} ${other}`;
      shared.set(key, (shared.get(key) ?? 0) + long);
    }
  }
  for (const [key, long] of shared) {
    const [a, b] = key.split(' ').map(Number);
    const least = Math.max(BORDER.least, BORDER.share * Math.min(lengths[a], lengths[b]));
    if (a < b && long >= least && boxesMeet(growBox(outlineBox(flats[a]), BORDER.near), outlineBox(flats[b])))
      found.push([a, b]);
  }
  return found;
}

const boxOfPlace = (p: Point): Box => ({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y });

function away(p: Point, { from, to }: Side): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const long = dx * dx + dy * dy;
  const t = long > 0 ? Math.min(1, Math.max(0, ((p.x - from.x) * dx + (p.y - from.y) * dy) / long)) : 0;
  return Math.hypot(from.x + t * dx - p.x, from.y + t * dy - p.y);
}

/** Neighbours whose tones are so near that on a squint they are one; the nearest first. */
export function tooNear(d: Drawing, flats: readonly Flat[], least = TOO_NEAR): { a: Flat; b: Flat; by: number }[] {
  const tones = flats.map((f) => toneOf(opaqueColourOf(d, f.fill, shownFlat(f))));
  return neighbours(flats)
    .map(([a, b]) => ({ a: flats[a], b: flats[b], by: Math.abs(tones[a] - tones[b]) }))
    .filter((n) => n.by < least)
    .sort((m, n) => m.by - n.by);
}

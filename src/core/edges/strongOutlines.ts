import type { Picture } from '../colour/picture';
import type { Point } from '../geometry/point';
import { edgeField, LEAST_RATIO, type EdgeField } from './edgeField';
import { fieldScale, labPictureOf, shrunkLab } from './labPicture';

/** An outline in a photo: the places that it runs through, px of the picture, and how much it stands out, on the mean. */
export type Outline = { readonly points: readonly Point[]; readonly clear: number };

/** An outline begins where it stands out so much, and goes on for as long as it does by so much. */
const BEGINS = 6;
const GOES_ON = 1.2 * LEAST_RATIO;
/** Shorter ones are none, px of the field; nor are those that stand out by less on the mean. */
const SHORTEST = 28;
const STRONG = 5;
/** It goes on ahead, to no pixel that lies aside by more (the cosine), and over gaps of a pixel. */
const AHEAD = 0.4;
const GAP = 2;
/** Of what is clearer than this the length alone counts. */
const CLEAR = 20;

const known = new WeakMap<Picture, readonly Outline[]>();

/**
 * The strong outlines in a photo, the longest and clearest first: ridges of what stands out in its colours, linked from their
 * clearest places on (hysteresis: Canny 1986). Told once for each picture.
 */
export function strongOutlines(image: Picture): readonly Outline[] {
  let made = known.get(image);
  if (!made) {
    const by = fieldScale(image);
    made = linked(edgeField(shrunkLab(labPictureOf(image), by))).map(({ pixels, clear }) => ({
      points: pixels.map((p) => ({ x: (p.x + 0.5) * by, y: (p.y + 0.5) * by })),
      clear,
    }));
    known.set(image, made);
  }
  return made;
}

function linked(field: EdgeField): { pixels: Point[]; clear: number }[] {
  const { width, ratio, trail } = field;
  const seeds: number[] = [];
  for (let i = 0; i < trail.length; i++) if (trail[i] && ratio[i] >= BEGINS) seeds.push(i);
  seeds.sort((a, b) => ratio[b] - ratio[a]);
  const taken = new Uint8Array(trail.length);
  const found: { pixels: Point[]; clear: number }[] = [];
  for (const seed of seeds) {
    if (taken[seed]) continue;
    taken[seed] = 1;
    const back = goneOn(field, taken, seed, -1);
    const pixels = [...back.reverse(), seed, ...goneOn(field, taken, seed, 1)];
    const clear = pixels.reduce((sum, i) => sum + ratio[i], 0) / pixels.length;
    if (pixels.length < SHORTEST || clear < STRONG) continue;
    found.push({ pixels: pixels.map((i) => ({ x: i % width, y: Math.floor(i / width) })), clear });
  }
  const weight = (o: { pixels: Point[]; clear: number }): number => o.pixels.length * Math.min(CLEAR, o.clear);
  return found.sort((a, b) => weight(b) - weight(a));
}

/** The pixels that an outline goes on over from one of them, one way along it. */
function goneOn(
  { width, height, ratio, trail, angle }: EdgeField,
  taken: Uint8Array,
  from: number,
  way: 1 | -1,
): number[] {
  const list: number[] = [];
  let [dx, dy] = [-Math.sin(angle[from]) * way, Math.cos(angle[from]) * way];
  for (let at = from; ;) {
    const [x, y] = [at % width, Math.floor(at / width)];
    let [best, most] = [-1, 0];
    for (let v = -GAP; v <= GAP; v++)
      for (let u = -GAP; u <= GAP; u++) {
        const [px, py] = [x + u, y + v];
        if ((u === 0 && v === 0) || px < 0 || py < 0 || px >= width || py >= height) continue;
        const i = py * width + px;
        if (!trail[i] || taken[i] || ratio[i] < GOES_ON) continue;
        const far = Math.hypot(u, v);
        const ahead = (u * dx + v * dy) / far;
        // The nearest that lies ahead.
        const worth = ahead < AHEAD ? 0 : (ahead * Math.min(CLEAR, ratio[i])) / (far * far);
        if (worth > most) [best, most] = [i, worth];
      }
    if (best < 0) return list;
    const [nx, ny] = [-Math.sin(angle[best]), Math.cos(angle[best])];
    const sign = nx * dx + ny * dy >= 0 ? 1 : -1;
    [dx, dy] = [nx * sign, ny * sign];
    // What lies beside is of the same.
    for (let v = -1; v <= 1; v++) for (let u = -1; u <= 1; u++) taken[at + v * width + u] = 1;
    taken[best] = 1;
    list.push(best);
    at = best;
  }
}

import type { Places } from '../geometry/along';
import { smoothed } from '../geometry/smoothed';
import { Across, STEP, type Changes, type EdgeScale } from './across';
import { noiseFloor } from './floor';
import type { LabPicture } from './labPicture';
import { signalToNoise, type SignalToNoise } from './signalToNoise';

/** An edge is placed at the finest of these scales that tells it for sure, and at which it is as clear as at the broadest, nearly. */
const SCALES: readonly EdgeScale[] = [
  { across: 1, along: 3 },
  { across: 2, along: 4 },
  { across: 4, along: 10 },
];
const BROADEST = SCALES.length - 1;
const SURE = 6;
const AS_CLEAR = 0.68;
/** It is placed within so many px of where it was seen; its top lies within so many steps of there, nearly always. */
const NEAR = 3;
const TOP = 3;
/** Its scale and its colours are those of so many places to either side. */
const TOGETHER = 6;
/** Offsets are evened along the line; those of soft edges jitter more, and have no sharp corners. */
const EVEN = [6, 2, 1];
const EVENER = [6, 5, 4, 3, 2, 1];

/** What is found at one scale: changes of colour, and how they stand out. */
type AtScale = { readonly changes: Changes; readonly told: SignalToNoise };

/** An edge that was seen at some offsets across a line (NaN: nowhere), placed between pixels. */
export function placedOffsets(picture: LabPicture, places: Places, seen: Float64Array): Float64Array {
  const about = seen.map((o) => (Number.isNaN(o) ? 0 : o));
  const across = new Across(picture, places, NEAR, SCALES[BROADEST].across, about);
  const found = SCALES.map((scale): AtScale => {
    const changes = across.changes(scale);
    return { changes, told: signalToNoise(changes, noiseFloor(picture, scale), null) };
  });
  const scale = medians(
    Int8Array.from({ length: places.n }, (_, i) => scaleAt(found, i)),
    places.closed,
  );
  const sides = sidesAlong(found, scale, seen, places.closed);
  const offset = seen.map((o, i) => {
    if (Number.isNaN(o)) return NaN;
    const by = topOf(found[scale[i]].told, i, sides);
    return by === null ? o : o + by * STEP;
  });
  const [even, evener] = [EVEN, EVENER].map((kernel) => smoothed(offset, kernel, places.closed));
  return even.map((o, i) => (scale[i] === BROADEST ? evener[i] : o));
}

/** The finest scale that is reliable at a place. */
function scaleAt(found: readonly AtScale[], i: number): number {
  const clearest = found.map(({ changes, told }) => {
    const { width, channels, values } = changes;
    const middle = i * width + (width - 1) / 2;
    let [ratio, size] = [0, 0];
    for (let at = middle - TOP; at <= middle + TOP; at++) {
      let sum = 0;
      for (let c = 0; c < channels; c++) sum += values[at * channels + c] ** 2;
      ratio = Math.max(ratio, told.ratio[at]);
      size = Math.max(size, sum);
    }
    return { ratio, size: Math.sqrt(size) };
  });
  const k = clearest.findIndex(({ ratio, size }) => ratio >= SURE && size >= AS_CLEAR * clearest[BROADEST].size);
  return k < 0 ? BROADEST : k;
}

/** How colours change across the edge about each place: of what is clearest there and at its neighbours, summed. */
function sidesAlong(found: readonly AtScale[], scale: Int8Array, seen: Float64Array, closed: boolean): Float32Array {
  const { width, channels } = found[0].told;
  const own = new Float32Array(seen.length * channels);
  const middle = (width - 1) / 2;
  for (let i = 0; i < seen.length; i++) {
    if (Number.isNaN(seen[i])) continue;
    const { ratio, values } = found[scale[i]].told;
    let best = i * width + middle;
    for (let at = i * width + middle - 2; at <= i * width + middle + 2; at++) if (ratio[at] > ratio[best]) best = at;
    for (let c = 0; c < channels; c++) own[i * channels + c] = values[best * channels + c];
  }
  const sides = new Float32Array(own.length);
  for (let i = 0; i < seen.length; i++)
    for (const j of around(i, seen.length, closed))
      for (let c = 0; c < channels; c++) sides[i * channels + c] += own[j * channels + c];
  return sides;
}

/** How many steps from a row's middle changes to these sides are largest, uphill from there; null where they go on growing. */
function topOf({ width, channels, values }: SignalToNoise, i: number, sides: Float32Array): number | null {
  const along = (k: number): number => {
    let sum = 0;
    for (let c = 0; c < channels; c++) sum += sides[i * channels + c] * values[(i * width + k) * channels + c];
    return sum;
  };
  const middle = (width - 1) / 2;
  let best = middle;
  for (let most = along(middle); ;) {
    const next = [best - 1, best + 1].find((k) => k >= 0 && k < width && along(k) > most);
    if (next === undefined) break;
    best = next;
    most = along(best);
  }
  if (best === 0 || best === width - 1) return null;
  const [a, b, c] = [along(best - 1), along(best), along(best + 1)];
  const curve = a - 2 * b + c;
  return best - middle + (curve < 0 ? (0.5 * (a - c)) / curve : 0);
}

/** A place and some to either side. */
function around(i: number, n: number, closed: boolean): number[] {
  const near: number[] = [];
  for (let d = -TOGETHER; d <= TOGETHER; d++) {
    const j = closed ? (i + d + n) % n : i + d;
    if (j >= 0 && j < n) near.push(j);
  }
  return near;
}

/** Of each figure and some to either side the middle one. */
const medians = (list: Int8Array, closed: boolean): Int8Array =>
  list.map((_, i) => {
    const near = around(i, list.length, closed).map((j) => list[j]);
    return near.sort((a, b) => a - b)[near.length >> 1];
  });

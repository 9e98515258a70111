import { blurredValues } from '../raster/blur';
import { UNITS, type LabPicture } from './labPicture';
import { MEAN_SQUARE } from './signalToNoise';

/**
 * Where a picture has edges: how much each of its pixels stands out of the noise and the texture about it; `trail` is 1 on the
 * ridges of that, thinned to a pixel (Canny 1986); `angle` is across the edge there, 0…π, and `sides` how its colours change
 * that way, a figure a channel, a vector of length 127.
 */
export type EdgeField = {
  readonly width: number;
  readonly height: number;
  readonly channels: number;
  readonly ratio: Float32Array;
  readonly trail: Uint8Array;
  readonly angle: Float32Array;
  readonly sides: Int8Array;
};

/** Colours are smoothed so much before they are compared, px. */
const SIGMA = 1.5;
/** What is usual is told in tiles of so many px, three by three together. */
const TILE = 32;
/** Of which one pixel in so many, each way, is looked at. */
const SKIP = 3;
/** From so many times what is usual on there may be an edge. */
export const LEAST_RATIO = 2.4;
/** Below this no change is seen, OKLab a px. */
const LEAST = 0.0006;

/**
 * The edges of a picture in all its channels: the largest change of colour at each pixel and its direction, by the structure
 * tensor of its channels (Di Zenzo 1986), each channel in units of its own noise.
 */
export function edgeField({ width, height, channels, values }: LabPicture): EdgeField {
  const n = width * height;
  const planes = Array.from({ length: channels }, (_, c) => {
    const plane = new Float32Array(n);
    for (let i = 0; i < n; i++) plane[i] = values[i * channels + c] / UNITS;
    return differences(blurredValues(plane, width, height, SIGMA), width, height);
  });
  const usual = planes.map((p) => usualIn(p, width, height));
  const field: EdgeField = {
    width,
    height,
    channels,
    ratio: new Float32Array(n),
    trail: new Uint8Array(n),
    angle: new Float32Array(n),
    sides: new Int8Array(n * channels),
  };
  const columns = Math.ceil(width / TILE);
  const chance = MEAN_SQUARE * (channels - 1);
  for (let y = 0, i = 0; y < height; y++) {
    const row = Math.floor(y / TILE) * columns;
    for (let x = 0; x < width; x++, i++) {
      const tile = row + ((x / TILE) | 0);
      let xx = 0;
      let xy = 0;
      let yy = 0;
      for (let c = 0; c < channels; c++) {
        const own = usual[c][tile];
        const gx = planes[c].x[i] / own;
        const gy = planes[c].y[i] / own;
        xx += gx * gx;
        xy += gx * gy;
        yy += gy * gy;
      }
      // The larger of the tensor's two eigenvalues is no larger than their sum.
      if (xx + yy - chance < LEAST_RATIO * LEAST_RATIO * 0.25) continue;
      const apart = xx - yy;
      const largest = (xx + yy + Math.sqrt(apart * apart + 4 * xy * xy)) / 2;
      field.ratio[i] = Math.sqrt(Math.max(0, largest - chance));
      const turn = 0.5 * Math.atan2(2 * xy, apart);
      field.angle[i] = turn < 0 ? turn + Math.PI : turn;
    }
  }
  thin(field);
  for (let i = 0; i < n; i++) if (field.trail[i]) sidesAt(field, planes, usual, i);
  return field;
}

/** How colours change across an edge at a pixel of it. */
function sidesAt(
  { width, channels, angle, sides }: EdgeField,
  planes: readonly Differences[],
  usual: readonly Float32Array[],
  i: number,
): void {
  const [cos, sin] = [Math.cos(angle[i]), Math.sin(angle[i])];
  const tile = Math.floor(Math.floor(i / width) / TILE) * Math.ceil(width / TILE) + Math.floor((i % width) / TILE);
  const vector = planes.map((p, c) => (p.x[i] * cos + p.y[i] * sin) / usual[c][tile]);
  const k = 127 / (Math.hypot(...vector) || 1);
  for (let c = 0; c < channels; c++) sides[i * channels + c] = Math.round(k * vector[c]);
}

type Differences = { readonly x: Float32Array; readonly y: Float32Array };

function differences(plane: Float32Array, width: number, height: number): Differences {
  const [gx, gy] = [new Float32Array(plane.length), new Float32Array(plane.length)];
  for (let y = 1; y < height - 1; y++)
    for (let i = y * width + 1, end = (y + 1) * width - 1; i < end; i++) {
      gx[i] = (plane[i + 1] - plane[i - 1]) / 2;
      gy[i] = (plane[i + width] - plane[i - width]) / 2;
    }
  return { x: gx, y: gy };
}

/** How large differences usually are, by tiles: in the whole picture, or in the tiles about one, whichever is more. */
function usualIn({ x, y }: Differences, width: number, height: number): Float32Array {
  const [columns, rows] = [Math.ceil(width / TILE), Math.ceil(height / TILE)];
  const list = new Float32Array(Math.ceil(TILE / SKIP) ** 2);
  const own = new Float32Array(columns * rows);
  for (let r = 0, t = 0; r < rows; r++)
    for (let c = 0; c < columns; c++, t++) {
      let m = 0;
      for (let v = r * TILE + 1; v < Math.min(height - 1, (r + 1) * TILE); v += SKIP)
        for (let u = c * TILE + 1; u < Math.min(width - 1, (c + 1) * TILE); u += SKIP) {
          const i = v * width + u;
          // Of two directions the larger is larger than one alone, so one at a time.
          list[m++] = Math.abs((u + v) & 1 ? x[i] : y[i]);
        }
      own[t] = list.subarray(0, m).sort()[m >> 1] ?? 0;
    }
  const floor = Math.max(LEAST, own.slice().sort()[own.length >> 1]);
  const near = new Float32Array(9);
  return own.map((_, t) => {
    const [c, r] = [t % columns, Math.floor(t / columns)];
    let m = 0;
    for (let dr = -1; dr <= 1; dr++)
      for (let dc = -1; dc <= 1; dc++)
        if (c + dc >= 0 && c + dc < columns && r + dr >= 0 && r + dr < rows)
          near[m++] = own[(r + dr) * columns + c + dc];
    return Math.max(floor, near.subarray(0, m).sort()[m >> 1]);
  });
}

/** Ridges: pixels that stand out no less than what lies to both sides across the edge. */
function thin({ width, height, ratio, trail, angle }: EdgeField): void {
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x;
      const own = ratio[i];
      if (own < LEAST_RATIO) continue;
      const [dx, dy] = [Math.cos(angle[i]), Math.sin(angle[i])];
      if (own >= between(ratio, width, x + dx, y + dy) && own > between(ratio, width, x - dx, y - dy)) trail[i] = 1;
    }
}

function between(values: Float32Array, width: number, x: number, y: number): number {
  const [l, t] = [Math.floor(x), Math.floor(y)];
  const [fx, fy] = [x - l, y - t];
  const i = t * width + l;
  return (
    (values[i] * (1 - fx) + values[i + 1] * fx) * (1 - fy) +
    (values[i + width] * (1 - fx) + values[i + width + 1] * fx) * fy
  );
}

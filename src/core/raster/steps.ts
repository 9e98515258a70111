import { luma, rgbaImage, type RgbaImage } from './rgba';

/** Colours are looked up in so many levels of each channel. */
const LEVELS = 64;
const ROUNDS = 60;

/** How far two colours are apart: their lightness, and somewhat less their hues (luma and colour differences, ITU-R BT.709). */
function far(a: readonly number[], b: readonly number[]): number {
  const y = luma(a[0], a[1], a[2]) - luma(b[0], b[1], b[2]);
  const u = a[2] - b[2] - y;
  const v = a[0] - b[0] - y;
  return y * y + 0.3 * (u * u + v * v);
}

/** A picture in a few colours, #rrggbb: each of its pixels in the one that is most like it. */
export function inColours(image: RgbaImage, colours: readonly string[]): RgbaImage {
  const list = colours.map((hex) => [1, 3, 5].map((k) => parseInt(hex.slice(k, k + 2), 16)));
  const step = 256 / LEVELS;
  const nearest = new Uint8Array(LEVELS ** 3);
  for (let k = 0; k < nearest.length; k++) {
    const own = [k >> 12, (k >> 6) & 63, k & 63].map((v) => (v + 0.5) * step);
    for (let i = 1; i < list.length; i++) if (far(own, list[i]) < far(own, list[nearest[k]])) nearest[k] = i;
  }
  const result = rgbaImage(image.width, image.height);
  const [from, to] = [image.data, result.data];
  for (let i = 0; i < from.length; i += 4) {
    const own = list[nearest[((from[i] >> 2) << 12) | ((from[i + 1] >> 2) << 6) | (from[i + 2] >> 2)]];
    to[i] = own[0];
    to[i + 1] = own[1];
    to[i + 2] = own[2];
    to[i + 3] = from[i + 3];
  }
  return result;
}

/** So many greys, #rrggbb, from dark to light, for a picture with so many pixels of each of 256 tones (Lloyd 1982). */
export function toneSteps(histogram: readonly number[], count: number): string[] {
  const total = histogram.reduce((a, b) => a + b, 0);
  // Begun apart from each other over the range that there is, so that rare tones are seen too.
  const there = histogram.flatMap((n, v) => (n > total / 2000 ? [v] : []));
  const [least, most] = [there[0] ?? 0, there.at(-1) ?? 255];
  let means = Array.from({ length: count }, (_, k) => least + ((most - least) * (k + 0.5)) / count);
  for (let round = 0; round < ROUNDS && total > 0; round++) {
    const sums = means.map(() => ({ sum: 0, n: 0 }));
    histogram.forEach((n, v) => {
      let best = 0;
      means.forEach((m, k) => {
        if (Math.abs(m - v) < Math.abs(means[best] - v)) best = k;
      });
      sums[best].sum += n * v;
      sums[best].n += n;
    });
    means = means.map((m, k) => (sums[k].n > 0 ? sums[k].sum / sums[k].n : m));
  }
  return means.map((m) => `#${Math.round(m).toString(16).padStart(2, '0').repeat(3)}`);
}

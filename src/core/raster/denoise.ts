import { imageOfWords, wordsOf, type RgbaImage } from './rgba';

/*
 * A pixel's three colours lie side by side in one whole number, ten bits each: eight of the value, and one above it
 * that is free for comparing. So the three are compared and exchanged at once, without a branch.
 */
const GUARD = (1 << 8) | (1 << 18) | (1 << 28);

/** All bits of each value in which `a` is at least `b`. */
function atLeast(a: number, b: number): number {
  const free = ((a | GUARD) - b) & GUARD;
  return free - (free >>> 8);
}

const least = (a: number, b: number): number => a ^ ((a ^ b) & atLeast(a, b));
const most = (a: number, b: number): number => b ^ ((a ^ b) & atLeast(a, b));
const middle = (a: number, b: number, c: number): number => {
  const swap = (a ^ b) & atLeast(a, b);
  return most(a ^ swap, least(b ^ swap, c));
};

/** So many rows are taken through all rounds before the next: what is worked on stays near the processor. */
const STRIP = 48;

/** Each pixel takes the median of the nine around it, colour by colour, `rounds` times: grain goes, edges stay. */
export function denoised(image: RgbaImage, rounds: number): RgbaImage {
  const { width, height } = image;
  const words = wordsOf(image);
  const result = new Uint32Array(words.length);
  let now = new Int32Array((STRIP + 2 * rounds) * width);
  let next = new Int32Array(now.length);
  const columns = { low: new Int32Array(width), mid: new Int32Array(width), high: new Int32Array(width) };
  for (let top = 0; top < height; top += STRIP) {
    const bottom = Math.min(height, top + STRIP);
    const first = Math.max(0, top - rounds);
    const end = Math.min(height, bottom + rounds);
    for (let i = first * width, j = 0; i < end * width; i++, j++) now[j] = apart(words[i]);
    // Each round needs a row more on both sides than the next, but where the picture ends.
    for (let k = 1; k <= rounds; k++) {
      const from = Math.max(0, top - (rounds - k)) - first;
      const to = Math.min(height, bottom + (rounds - k)) - first;
      for (let y = from; y < to; y++)
        medians(now, next, Math.max(0, y - 1) * width, y * width, Math.min(end - first - 1, y + 1) * width, columns);
      [now, next] = [next, now];
    }
    for (let i = top * width, j = (top - first) * width; i < bottom * width; i++, j++)
      result[i] = together(now[j]) | (words[i] & 0xff000000);
  }
  return imageOfWords({ width, height, words: result });
}

const apart = (word: number): number => (word & 0xff) | ((word & 0xff00) << 2) | ((word & 0xff0000) << 4);
const together = (v: number): number => (v & 0xff) | ((v >>> 2) & 0xff00) | ((v >>> 4) & 0xff0000);

type Columns = { low: Int32Array; mid: Int32Array; high: Int32Array };

/** The median of nine from those of columns of three (Devillard 1998): the columns are sorted once and used three times. */
function medians(
  from: Int32Array,
  to: Int32Array,
  above: number,
  row: number,
  below: number,
  { low, mid, high }: Columns,
): void {
  const width = low.length;
  for (let x = 0; x < width; x++) {
    const a = from[above + x];
    const b = from[row + x];
    const c = from[below + x];
    const swap = (a ^ b) & atLeast(a, b);
    const lesser = a ^ swap;
    const greater = b ^ swap;
    low[x] = least(lesser, c);
    high[x] = most(greater, c);
    mid[x] = most(lesser, least(greater, c));
  }
  for (let x = 0; x < width; x++) {
    const l = x > 0 ? x - 1 : 0;
    const r = x < width - 1 ? x + 1 : x;
    to[row + x] = middle(
      most(most(low[l], low[x]), low[r]),
      middle(mid[l], mid[x], mid[r]),
      least(least(high[l], high[x]), high[r]),
    );
  }
}

import { STEP, type Profiles } from './profile';

/** A stroke's rims to both sides of its middle, px; endless where the ink goes on beyond what was looked at. */
export type Rims = { readonly left: Float64Array; readonly right: Float64Array };

/** At a rim so much of full ink is left. */
const AT_RIM = 0.5;

/** How far the ink goes on to both sides of a stroke's middle at each place; NaN where there is none. */
export function rimsOf({ n, width, values }: Profiles, offset: Float64Array, full: number, grain: number): Rims {
  const [left, right] = [new Float64Array(n).fill(NaN), new Float64Array(n).fill(NaN)];
  const middle = (width - 1) / 2;
  const level = grain + AT_RIM * (full - grain);
  for (let i = 0; i < n; i++) {
    if (Number.isNaN(offset[i])) continue;
    const row = i * width;
    const centre = middle + offset[i] / STEP;
    const start = Math.max(1, Math.min(width - 2, Math.round(centre)));
    for (const [side, rims] of [
      [-1, left],
      [1, right],
    ] as const) {
      let k = start;
      while (k >= 0 && k < width && values[row + k] >= level) k += side;
      if (k < 0 || k >= width) {
        rims[i] = Infinity;
        continue;
      }
      const before = k - side;
      const share = k === start ? 0 : (values[row + before] - level) / (values[row + before] - values[row + k]);
      rims[i] = k === start ? 0 : Math.max(0, side * (before + side * share - centre) * STEP);
    }
  }
  return { left, right };
}

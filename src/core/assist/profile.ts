import type { Places } from '../geometry/along';
import { trackedAt, type TrackedInk } from './tracked';

/** Steps across a line, px. */
export const STEP = 0.5;

/** What lies across a line at each of its places: rows of values from `-reach` to `reach`, `STEP` px apart. */
export type Profiles = {
  readonly n: number;
  readonly width: number;
  readonly reach: number;
  readonly values: Float32Array;
};

/**
 * The values across a line, each the mean of three neighbouring rows: paper's tooth and noise even out along a stroke.
 * Closed lines go round.
 */
export function profilesAcross(picture: TrackedInk, places: Places, reach: number): Profiles {
  const half = Math.ceil(reach / STEP);
  const width = 2 * half + 1;
  const { n } = places;
  const raw = new Float32Array(n * width);
  for (let i = 0; i < n; i++) sampleRow(picture, places, i, half, raw.subarray(i * width, (i + 1) * width));
  const values = new Float32Array(n * width);
  for (let i = 0; i < n; i++) {
    const before = i > 0 ? i - 1 : places.closed ? n - 1 : i;
    const after = i < n - 1 ? i + 1 : places.closed ? 0 : i;
    for (let k = 0; k < width; k++)
      values[i * width + k] = (raw[before * width + k] + 2 * raw[i * width + k] + raw[after * width + k]) / 4;
  }
  return { n, width, reach: half * STEP, values };
}

/** The values across one place: as `trackedAt` has them, written out for rows that keep clear of the picture's edge. */
function sampleRow(picture: TrackedInk, places: Places, i: number, half: number, row: Float32Array): void {
  const { width, height, values } = picture;
  const [dx, dy] = [STEP * places.nx[i], STEP * places.ny[i]];
  const [x, y] = [places.x[i] - 0.5, places.y[i] - 0.5];
  const [ex, ey] = [Math.abs(half * dx), Math.abs(half * dy)];
  if (x - ex < 0 || y - ey < 0 || x + ex > width - 2 || y + ey > height - 2) {
    for (let k = -half; k <= half; k++) row[k + half] = trackedAt(picture, x + 0.5 + k * dx, y + 0.5 + k * dy);
    return;
  }
  for (let k = -half; k <= half; k++) {
    const px = x + k * dx;
    const py = y + k * dy;
    const l = px | 0;
    const t = py | 0;
    const at = t * width + l;
    const fx = px - l;
    const above = values[at] + (values[at + 1] - values[at]) * fx;
    const below = values[at + width] + (values[at + width + 1] - values[at + width]) * fx;
    row[k + half] = above + (below - above) * (py - t);
  }
}

/** How wide and how dark a line's ink is, as seen across it; null where it has none. */
export type Stroke = { readonly half: number; readonly level: number };

/** From this share of its darkest value on, a row is within a stroke. */
const WITHIN = 0.5;

/**
 * The stroke beneath a line, by the ink nearest to it in each row: of the widths one below the middle (where strokes meet
 * they seem wider), of the levels the middle. `share` of the line is taken to have no wider stroke on it.
 */
export function strokeBeneath(
  { n, width, values }: Profiles,
  clear: number,
  reach: number,
  share = 0.4,
): Stroke | null {
  const widths: number[] = [];
  const levels: number[] = [];
  const middle = (width - 1) / 2;
  const most = Math.round(reach / STEP);
  for (let i = 0; i < n; i++) {
    const row = i * width;
    let at = -1;
    for (let d = 0; d <= most && at < 0; d++) {
      if (values[row + middle + d] >= clear) at = middle + d;
      else if (values[row + middle - d] >= clear) at = middle - d;
    }
    if (at < 0) continue;
    // Uphill to the top of the stroke that this is the near slope of.
    let top = at;
    for (;;) {
      const next = [top - 1, top + 1].find((k) => k >= 0 && k < width && values[row + k] > values[row + top]);
      if (next === undefined) break;
      top = next;
    }
    const level = values[row + top];
    let [a, b] = [top, top];
    while (a > 0 && values[row + a - 1] >= WITHIN * level) a--;
    while (b < width - 1 && values[row + b + 1] >= WITHIN * level) b++;
    const left = a === 0 ? 0 : (values[row + a] - WITHIN * level) / (values[row + a] - values[row + a - 1]);
    const right = b === width - 1 ? 0 : (values[row + b] - WITHIN * level) / (values[row + b] - values[row + b + 1]);
    widths.push((b - a + left + right) * STEP);
    levels.push(level);
  }
  if (widths.length === 0) return null;
  widths.sort((p, q) => p - q);
  levels.sort((p, q) => p - q);
  return { half: Math.max(0.6, widths[Math.floor(widths.length * share)] / 2), level: levels[levels.length >> 1] };
}

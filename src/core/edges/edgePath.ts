import type { Places } from '../geometry/along';
import { smoothed } from '../geometry/smoothed';
import { bestWay } from '../geometry/viterbi';
import { Across, STEP, type EdgeScale } from './across';
import { noiseFloor } from './floor';
import type { LabPicture } from './labPicture';
import { likeness, signalToNoise } from './signalToNoise';
import { placedOffsets } from './subpixel';

/** An edge is looked for at this scale, px. */
const SEEN: EdgeScale = { across: 2, along: 8 };
/** Of two edges that are as clear the nearer is meant: how much dearer one is that lies the whole reach away. */
const AWAY = 0.35;
/** So many times what is usual in the picture, or about the line, is perhaps an edge; so many times, for sure. */
const LEAST = 2.7;
const CLEAR = 15;
/** So many steps to either side of an edge's top are of the same. */
const BESIDE = 8;
/** What is usual is told within so many px aside of a line. */
const ASIDE = 16;
/** What it costs when the colours to both sides become others from place to place. */
const OTHER = 1.5;
const EVEN = [6, 2, 1];

/**
 * Where an edge runs along a line: for each place how far across it lies, px to the right of the way; NaN where there is none
 * within reach. Changes in all channels of OKLab count by how much they stand out of the picture's own noise and texture, and
 * of what lies about the line; of all ways that keep their colours to both sides the clearest and nearest is taken
 * (Di Zenzo 1986: gradients of several channels; Mortensen and Barrett 1995: edges keep their sides). Then it is placed between
 * pixels, at the finest scale that is reliable (Elder and Zucker 1998). Null where there is none at all. An edge of which it is
 * known that it `isThere` need not stand out of what lies about it.
 */
export function edgePath(picture: LabPicture, places: Places, reach: number, isThere = false): Float64Array | null {
  const { n, closed } = places;
  const across = new Across(picture, places, isThere ? reach + 1 : Math.max(reach, ASIDE), SEEN.across);
  const seen = signalToNoise(across.changes(SEEN), noiseFloor(picture, SEEN), isThere ? null : places);
  const cells = 2 * Math.floor(reach / STEP) + 1;
  const shift = (seen.width - cells) / 2;
  const scores = new Float32Array(n * cells);
  for (let i = 0; i < n; i++) {
    const row = seen.ratio.subarray(i * seen.width, (i + 1) * seen.width);
    for (let c = 0; c < cells; c++) scores[i * cells + c] = clearness(row, shift + c);
  }
  const rows = bestWay({ width: cells, values: scores, away: AWAY }, n, closed, (i, before, at) => {
    const last = i > 0 ? i - 1 : n - 1;
    const alike = likeness(seen, last * seen.width + shift + before, i * seen.width + shift + at);
    return OTHER * (1 - alike) * (1 - alike);
  });
  if (!rows.some((k) => k >= 0)) return null;
  const rough = Float64Array.from(rows, (k) => (k < 0 ? NaN : (k - (cells - 1) / 2) * STEP));
  return placedOffsets(picture, places, smoothed(rough, EVEN, closed));
}

/** How clear an edge is at a place of a row, 0…1; less beside its top than on it, below 0 where there is none. */
function clearness(row: Float32Array, k: number): number {
  const ratio = row[k];
  if (ratio < LEAST) return -1;
  let top = ratio;
  for (let j = Math.max(0, k - BESIDE); j <= Math.min(row.length - 1, k + BESIDE); j++) top = Math.max(top, row[j]);
  return Math.min(1, Math.log(ratio / LEAST) / Math.log(CLEAR / LEAST)) * (ratio / top) ** 2;
}

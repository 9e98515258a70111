import type { Samples } from './samples';

/**
 * A stroke told by fewer samples: the means of neighbouring points. Across the curve a mean of m points is as good as
 * they are, for its noise is smaller by the square root of m, as long as the curve hardly bends along them.
 * Block `i` stands for the points from `starts[i]` up to, not including, `starts[i + 1]`.
 */
export type Blocks = { readonly samples: Samples; readonly starts: Int32Array; readonly bounds: number[] };

/** A block is no longer than this many tolerances: of what bends less sharply than that, its mean tells the truth. */
const LONGEST = 3;
/** Stretches between bounds keep at least so many blocks, so that a curve along them stays determined. */
const FEWEST = 24;

/**
 * The blocks of a stroke whose points are `spacing` apart. Points at `bounds` (rising; of a closed stroke the last is its
 * number of points) are blocks by themselves, and so are an open stroke's ends.
 */
export function blocksOf(s: Samples, bounds: readonly number[], spacing: number, tolerance: number): Blocks {
  const most = Math.max(1, Math.floor((LONGEST * tolerance) / spacing));
  const starts: number[] = [];
  const ends: number[] = [];
  bounds.slice(0, -1).forEach((from, k) => {
    const to = bounds[k + 1];
    ends.push(starts.length);
    starts.push(from);
    const inner = to - from - 1;
    const size = Math.min(most, Math.max(1, Math.floor(inner / FEWEST)));
    const count = Math.ceil(inner / size);
    for (let j = 0; j < count; j++) starts.push(from + 1 + Math.floor((j * inner) / count));
  });
  const isClosed = bounds.at(-1) === s.n;
  ends.push(starts.length);
  if (!isClosed) starts.push(bounds.at(-1)!);
  const n = starts.length;
  starts.push(s.n);
  const samples = { n, x: new Float64Array(n), y: new Float64Array(n) };
  for (let i = 0; i < n; i++) {
    const [from, to] = [starts[i], starts[i + 1]];
    let x = 0;
    let y = 0;
    for (let j = from; j < to; j++) {
      x += s.x[j];
      y += s.y[j];
    }
    samples.x[i] = x / (to - from);
    samples.y[i] = y / (to - from);
  }
  return { samples, starts: Int32Array.from(starts), bounds: ends };
}

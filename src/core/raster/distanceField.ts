/**
 * The exact distance from each pixel's centre to the centre of the nearest pixel that is not set, in px; 0 where it is
 * not set itself. Beyond the edge nothing is set. Linear in the pixels (Felzenszwalb and Huttenlocher 2012, "Distance
 * transforms of sampled functions"). Along a row only what is set without a break is looked at together: the pixels that
 * end it are nearer than any beyond them.
 */
export function distanceField(mask: Uint8Array, width: number, height: number): Float32Array {
  const squares = new Float32Array(width * height);
  const longest = Math.max(width, height) + 2;
  const line = new Float64Array(longest);
  const out = new Float64Array(longest);
  const parabola = new Int32Array(longest);
  const border = new Float64Array(longest + 1);
  // Columns, row by row: plain counting does for the first direction.
  for (let i = 0; i < mask.length; i++) if (mask[i]) squares[i] = i < width ? 1 : squares[i - width] + 1;
  const below = new Float32Array(width);
  for (let y = height - 1; y >= 0; y--) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      below[x] = mask[i] ? below[x] + 1 : 0;
      if (below[x] < squares[i]) squares[i] = below[x];
    }
  }
  for (let start = mask.indexOf(1); start >= 0;) {
    const end = (Math.floor(start / width) + 1) * width;
    let after = start;
    while (after < end && mask[after]) after++;
    const n = after - start;
    line[0] = 0;
    for (let k = 0; k < n; k++) line[k + 1] = squares[start + k] ** 2;
    line[n + 1] = 0;
    lowerEnvelope(line, n + 2, out, parabola, border);
    for (let k = 0; k < n; k++) squares[start + k] = Math.sqrt(out[k + 1]);
    start = mask.indexOf(1, after);
  }
  return squares;
}

/** The lowest of the parabolas (q − p)² + f(p) at each q. */
function lowerEnvelope(f: Float64Array, n: number, out: Float64Array, at: Int32Array, border: Float64Array): void {
  let k = 0;
  at[0] = 0;
  border[0] = -Infinity;
  border[1] = Infinity;
  for (let q = 1; q < n; q++) {
    let s = crossing(f, at[k], q);
    while (s <= border[k]) s = crossing(f, at[--k], q);
    at[++k] = q;
    border[k] = s;
    border[k + 1] = Infinity;
  }
  k = 0;
  for (let q = 0; q < n; q++) {
    while (border[k + 1] < q) k++;
    out[q] = (q - at[k]) ** 2 + f[at[k]];
  }
}

const crossing = (f: Float64Array, p: number, q: number): number => (f[q] + q * q - f[p] - p * p) / (2 * (q - p));

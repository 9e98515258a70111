/**
 * The exact distance from each pixel's centre to the centre of the nearest pixel that is not set, in px; 0 where it is
 * not set itself. Beyond the edge nothing is set. Linear in the pixels (Felzenszwalb and Huttenlocher 2012, "Distance
 * transforms of sampled functions").
 */
export function distanceField(mask: Uint8Array, width: number, height: number): Float32Array {
  const far = width + height;
  const squares = new Float32Array(width * height);
  const longest = Math.max(width, height) + 2;
  const line = new Float64Array(longest);
  const out = new Float64Array(longest);
  const parabola = new Int32Array(longest);
  const border = new Float64Array(longest + 1);
  // Columns: plain counting does for the first direction.
  for (let x = 0; x < width; x++) {
    let run = 0;
    for (let y = 0; y < height; y++) {
      run = mask[y * width + x] ? Math.min(far, run + 1) : 0;
      squares[y * width + x] = run;
    }
    run = 0;
    for (let y = height - 1; y >= 0; y--) {
      run = mask[y * width + x] ? Math.min(far, run + 1) : 0;
      squares[y * width + x] = Math.min(squares[y * width + x], run);
    }
  }
  for (let y = 0; y < height; y++) {
    let any = false;
    line[0] = 0;
    for (let x = 0; x < width; x++) {
      const v = squares[y * width + x];
      line[x + 1] = v * v;
      if (v > 0) any = true;
    }
    line[width + 1] = 0;
    if (!any) continue;
    lowerEnvelope(line, width + 2, out, parabola, border);
    for (let x = 0; x < width; x++) squares[y * width + x] = Math.sqrt(out[x + 1]);
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

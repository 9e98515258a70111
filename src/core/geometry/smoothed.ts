/**
 * Figures along a run, each the mean of those around it, weighted by a kernel: its middle first, then outwards. Alike on both
 * sides, so that towards an end, or beside what is not known (NaN, and left so), fewer are taken: an end is not drawn inwards.
 */
export function smoothed(list: Float64Array, kernel: readonly number[], closed: boolean): Float64Array {
  const n = list.length;
  return list.map((v, i) => {
    if (Number.isNaN(v)) return v;
    let sum = kernel[0] * v;
    let weight = kernel[0];
    for (let d = 1; d < kernel.length; d++) {
      const [a, b] = closed ? [(i - d + n) % n, (i + d) % n] : [i - d, i + d];
      if (a < 0 || b >= n || Number.isNaN(list[a]) || Number.isNaN(list[b])) break;
      sum += kernel[d] * (list[a] + list[b]);
      weight += 2 * kernel[d];
    }
    return sum / weight;
  });
}

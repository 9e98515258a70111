/** Areas of pixels that are of one sort and can be gone through from side to side: which one each pixel is of, from 0 on. */
export type ConnectedAreas = { readonly area: Int32Array; readonly count: number };

/** The connected areas of a map that has a sort for each pixel, in the order in which their first pixels come. */
export function connectedAreas(sorts: ArrayLike<number>, width: number): ConnectedAreas {
  const n = sorts.length;
  const area = new Int32Array(n).fill(-1);
  const queue = new Int32Array(n);
  let count = 0;
  for (let start = 0; start < n; start++) {
    if (area[start] >= 0) continue;
    const own = sorts[start];
    let tail = 1;
    const take = (i: number): void => {
      if (area[i] >= 0 || sorts[i] !== own) return;
      area[i] = count;
      queue[tail++] = i;
    };
    queue[0] = start;
    area[start] = count;
    for (let head = 0; head < tail; head++) {
      const i = queue[head];
      const x = i % width;
      if (x > 0) take(i - 1);
      if (x < width - 1) take(i + 1);
      if (i >= width) take(i - width);
      if (i + width < n) take(i + width);
    }
    count++;
  }
  return { area, count };
}

/**
 * A mask thinned to lines one pixel wide that keep its connections (Zhang and Suen 1984, "A fast parallel algorithm for
 * thinning digital patterns"), then freed of the corners of its staircases. Pixels at the edge of the picture are
 * treated as if nothing lay beyond. Works through the set pixels only, so that a page that is mostly paper costs little.
 */
export function thinned(mask: Uint8Array, width: number, height: number): Uint8Array {
  const w = width + 2;
  const grid = new Uint8Array(w * (height + 2));
  let live: number[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (!mask[y * width + x]) continue;
      const i = (y + 1) * w + x + 1;
      grid[i] = 1;
      live.push(i);
    }
  }
  for (let changed = true; changed;) {
    changed = false;
    for (const pass of [0, 1]) {
      const gone = live.filter((i) => canGo(grid, i, w, pass));
      if (gone.length === 0) continue;
      changed = true;
      for (const i of gone) grid[i] = 0;
      live = live.filter((i) => grid[i]);
    }
  }
  for (const i of live) if (isNeedless(grid, i, w)) grid[i] = 0;
  const result = new Uint8Array(width * height);
  for (const i of live) if (grid[i]) result[(Math.floor(i / w) - 1) * width + (i % w) - 1] = 1;
  return result;
}

function canGo(g: Uint8Array, i: number, w: number, pass: number): boolean {
  const [n, ne, e, se] = [g[i - w], g[i - w + 1], g[i + 1], g[i + w + 1]];
  const [s, sw, west, nw] = [g[i + w], g[i + w - 1], g[i - 1], g[i - w - 1]];
  const count = n + ne + e + se + s + sw + west + nw;
  if (count < 2 || count > 6) return false;
  const rises =
    (n < ne ? 1 : 0) +
    (ne < e ? 1 : 0) +
    (e < se ? 1 : 0) +
    (se < s ? 1 : 0) +
    (s < sw ? 1 : 0) +
    (sw < west ? 1 : 0) +
    (west < nw ? 1 : 0) +
    (nw < n ? 1 : 0);
  if (rises !== 1) return false;
  return pass === 0 ? n * e * s === 0 && e * s * west === 0 : n * e * west === 0 && n * s * west === 0;
}

/**
 * Whether a pixel can go without parting its neighbours, and is no end: its 8-connectivity number is one (Yokoi, Toriwaki
 * and Fukumura 1975). Asked one pixel after the other, this takes the corners out of staircases.
 */
function isNeedless(g: Uint8Array, i: number, w: number): boolean {
  const around = [g[i + 1], g[i - w + 1], g[i - w], g[i - w - 1], g[i - 1], g[i + w - 1], g[i + w], g[i + w + 1]];
  if (around.reduce((a, b) => a + b) < 2) return false;
  let number = 0;
  for (const k of [0, 2, 4, 6]) {
    const [a, b, c] = [1 - around[k], 1 - around[k + 1], 1 - around[(k + 2) % 8]];
    number += a - a * b * c;
  }
  return number === 1;
}

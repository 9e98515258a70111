import { UNITS, type LabPicture } from '../edges/labPicture';
import { blurredValues } from '../raster/blur';

/** Pixels are smoothed so much along edges, px, and so much elsewhere; what lies so near to an edge, in steps, is along it. */
const [FINE, BROAD, NEAR] = [0.8, 5, 3];
/** What is smoothed broadly is worked out on a picture so many times smaller. */
const SMALL = 4;
/** Colours change so many times as much as is usual at an edge, squared, and so much at least. */
const CLEAR = { times: 24, least: 0.0006 };

/** A picture's channels, OKLab: nearly as they are along its edges, where `firm` is 1; elsewhere smoothed broadly. */
export function evenedPlanes({ width, height, channels, values }: LabPicture): {
  planes: Float32Array[];
  firm: Uint8Array;
} {
  const n = width * height;
  const edge = new Float32Array(n);
  const planes = Array.from({ length: channels }, (_, c) => {
    const plane = new Float32Array(n);
    for (let i = 0; i < n; i++) plane[i] = values[channels * i + c] / UNITS;
    const fine = blurredValues(plane, width, height, FINE);
    for (let i = width; i < n - width; i++) {
      const dx = fine[i + 1] - fine[i - 1];
      const dy = fine[i + width] - fine[i - width];
      edge[i] += dx * dx + dy * dy;
    }
    return fine;
  });
  const firm = alongEdges(edge, width);
  for (const plane of planes) smoothBroadly(plane, firm, width, height);
  return { planes, firm };
}

/** 1 on edges, and near them. */
function alongEdges(edge: Float32Array, width: number): Uint8Array {
  const n = edge.length;
  const usual = Float32Array.from({ length: Math.ceil(n / 17) }, (_, k) => edge[17 * k]).sort();
  const clear = Math.max(CLEAR.least, CLEAR.times * usual[usual.length >> 1]);
  const away = new Uint8Array(n);
  for (let i = 0; i < n; i++) {
    const before = Math.min(i > 0 ? away[i - 1] : NEAR, i >= width ? away[i - width] : NEAR);
    away[i] = edge[i] > clear ? 0 : Math.min(NEAR + 1, before + 1);
  }
  for (let i = n - 1; i >= 0; i--) {
    const after = Math.min(i < n - 1 ? away[i + 1] : NEAR, i + width < n ? away[i + width] : NEAR);
    away[i] = Math.min(away[i], after + 1);
  }
  return away.map((a) => (a <= NEAR ? 1 : 0));
}

/** Smooths what is not firm over a distance; by a smaller picture, for there are many pixels. Changes the plane. */
function smoothBroadly(plane: Float32Array, firm: Uint8Array, width: number, height: number): void {
  const [w, h] = [Math.max(2, Math.ceil(width / SMALL)), Math.max(2, Math.ceil(height / SMALL))];
  const [sums, counts] = [new Float32Array(w * h), new Float32Array(w * h)];
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0, row = Math.floor(y / SMALL) * w; x < width; x++, i++) {
      const k = row + ((x / SMALL) | 0);
      sums[k] += plane[i];
      counts[k]++;
    }
  for (let k = 0; k < sums.length; k++) sums[k] = counts[k] > 0 ? sums[k] / counts[k] : sums[Math.max(0, k - 1)];
  const small = blurredValues(sums, w, h, BROAD / SMALL);
  for (let y = 0, i = 0; y < height; y++) {
    const v = Math.min(h - 1.001, Math.max(0, (y + 0.5) / SMALL - 0.5));
    const row = (v | 0) * w;
    const fy = v - (v | 0);
    for (let x = 0; x < width; x++, i++) {
      if (firm[i]) continue;
      const u = Math.min(w - 1.001, Math.max(0, (x + 0.5) / SMALL - 0.5));
      const k = row + (u | 0);
      const fx = u - (u | 0);
      const above = small[k] + (small[k + 1] - small[k]) * fx;
      const below = small[k + w] + (small[k + w + 1] - small[k + w]) * fx;
      plane[i] = above + (below - above) * fy;
    }
  }
}

import { cubicAt, cubicLength } from '@/core';
import { seeded } from '@/core/seeded';
import type { TrueLine } from '../curves/path';
import { octaves, smoothNoise } from './noise';

/** How much graphite lies on each pixel, 0…1, row by row. */
export type Graphite = { width: number; height: number; data: Float32Array };

/**
 * Draws lines in pencil. The stroke runs along the true curve with no offset; what varies is its pressure, its width
 * and where the paper's tooth takes the graphite. `scale` is pixels a unit of the curves.
 */
export function drawInPencil(
  lines: readonly TrueLine[],
  width: number,
  height: number,
  scale: number,
  seed: number,
): Graphite {
  const data = new Float32Array(width * height);
  const tooth = octaves(seed, 3);
  const streaks = smoothNoise(seed + 7);
  const random = seeded(seed);
  lines.forEach((line, k) => {
    const pressure = smoothNoise(seed + 1000 + k);
    const soft = 0.72 + 0.2 * random();
    const total = line.cubics.reduce((sum, c) => sum + cubicLength(c), 0);
    let run = 0;
    for (const cubic of line.cubics) {
      const length = cubicLength(cubic);
      const steps = Math.max(8, Math.ceil(length * scale * 1.6));
      for (let i = 0; i < steps; i++) {
        const p = cubicAt(cubic, i / steps);
        const along = (run + (length * i) / steps) / 60;
        const ends = line.closed ? 1 : taper((run + (length * i) / steps) / total);
        const radius = ((line.width * scale) / 2) * (0.86 + 0.18 * pressure(along, 0)) * (0.55 + 0.45 * ends);
        const dark = soft * (0.84 + 0.2 * pressure(along, 9)) * (0.7 + 0.3 * ends);
        stamp(data, width, height, p.x * scale, p.y * scale, radius, dark);
      }
      run += length;
    }
  });
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (data[i] === 0) continue;
      const grip = 0.74 + 0.5 * tooth(x / 3.2, y / 3.2) + 0.12 * streaks(x / 2, y / 11);
      data[i] *= Math.min(1, Math.max(0.12, grip + data[i] * 0.25));
    }
  }
  return { width, height, data };
}

/** Lighter at both ends of a stroke. */
const taper = (t: number): number => Math.min(1, Math.min(t, 1 - t) * 14 + 0.25);

/** The pencil's point: full in the middle, falling off at the rim. Where strokes overlap, the darker counts. */
function stamp(
  data: Float32Array,
  width: number,
  height: number,
  x: number,
  y: number,
  radius: number,
  dark: number,
): void {
  const reach = radius + 1;
  for (let py = Math.max(0, Math.floor(y - reach)); py <= Math.min(height - 1, Math.ceil(y + reach)); py++) {
    for (let px = Math.max(0, Math.floor(x - reach)); px <= Math.min(width - 1, Math.ceil(x + reach)); px++) {
      const d = Math.hypot(px + 0.5 - x, py + 0.5 - y);
      const v = dark * Math.min(1, Math.max(0, (radius + 0.7 - d) / Math.max(1.2, radius * 0.55)));
      const i = py * width + px;
      if (v > data[i]) data[i] = v;
    }
  }
}

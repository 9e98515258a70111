import type { Point } from '../geometry/point';
import { areaMask } from './areaMask';
import { blurredValues } from './blur';
import { rgbaImage, type RgbaImage } from './rgba';

/** The border between what is kept and what is dimmed is soft by so much, px. */
const SOFT = 0.8;

/** A picture of which all that lies outside of some outlines (shares of its sides, even-odd) is brought towards white, by a share. */
export function setApart(image: RgbaImage, outlines: readonly (readonly Point[])[], dim: number): RgbaImage {
  const { width, height, data } = image;
  const inside = new Float32Array(width * height);
  const area = areaMask(
    image,
    outlines.map((o) => o.map((p) => ({ x: p.x * width, y: p.y * height }))),
  );
  if (area)
    for (let y = 0; y < area.height; y++)
      for (let x = 0; x < area.width; x++) inside[(area.y + y) * width + area.x + x] = area.mask[y * area.width + x];
  const keeps = blurredValues(inside, width, height, SOFT);
  const result = rgbaImage(width, height);
  for (let i = 0, k = 0; i < data.length; i += 4, k++) {
    const by = dim * (1 - keeps[k]);
    for (let c = 0; c < 3; c++) result.data[i + c] = data[i + c] + (255 - data[i + c]) * by;
    result.data[i + 3] = data[i + 3];
  }
  return result;
}

import type { Point } from '../geometry/point';
import { assertColourImage, type ColourImage } from '../raster/colourImage';
import { withoutBorder } from './areaPixels';
import { areaMask } from '../raster/areaMask';
import { labOf, type Lab } from './oklab';
import { typicalColour } from './typical';

/** No more pixels of an area are looked at: evenly chosen, these tell as much. */
const MOST = 6_000;

/** What a picture is like in an area. */
export type AreaColour = {
  /** The colour that is typical of it, its border left out. */
  readonly lab: Lab;
  /** The mean of its pixels, its border left out: red, green, blue, sRGB 0…255. */
  readonly mean: readonly [number, number, number];
  /** How many of its pixels lie in the area. */
  readonly pixels: number;
};

/**
 * The colour that is typical of an area of a picture; null where none of the area lies in it. `outlines` are polygons in px,
 * even-odd. @throws RangeError for a bad picture.
 */
export function areaColour(image: ColourImage, outlines: readonly (readonly Point[])[]): AreaColour | null {
  assertColourImage(image);
  const area = areaMask(image, outlines);
  if (!area) return null;
  const inner = withoutBorder(area);
  const stride = Math.max(1, Math.ceil(inner.length / MOST));
  const labs: Lab[] = [];
  const sum = [0, 0, 0];
  for (let k = 0; k < inner.length; k += stride) {
    const [px, py] = [area.x + (inner[k] % area.width), area.y + Math.floor(inner[k] / area.width)];
    const i = 3 * (py * image.width + px);
    const [r, g, b] = image.data.subarray(i, i + 3);
    labs.push(labOf(r, g, b));
    sum[0] += r;
    sum[1] += g;
    sum[2] += b;
  }
  const mean = [sum[0] / labs.length, sum[1] / labs.length, sum[2] / labs.length] as const;
  return { mean, lab: typicalColour(labs), pixels: area.mask.reduce((n, v) => n + v, 0) };
}

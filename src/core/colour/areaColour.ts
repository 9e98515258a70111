import type { Point } from '../geometry/point';
import { assertColourImage, type ColourImage } from '../raster/colourImage';
import { areaMask, withoutBorder } from './areaPixels';
import { labOf, type Lab } from './oklab';
import { typicalColour } from './typical';

/** No more pixels of an area are looked at: evenly chosen, these tell as much. */
const MOST = 6_000;

/** What a picture is like in an area. */
export type AreaColour = {
  /** The colour that is typical of it, its border left out. */
  readonly lab: Lab;
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
  for (let k = 0; k < inner.length; k += stride) {
    const [px, py] = [area.x + (inner[k] % area.width), area.y + Math.floor(inner[k] / area.width)];
    const i = 3 * (py * image.width + px);
    labs.push(labOf(image.data[i], image.data[i + 1], image.data[i + 2]));
  }
  return { lab: typicalColour(labs), pixels: area.mask.reduce((n, v) => n + v, 0) };
}

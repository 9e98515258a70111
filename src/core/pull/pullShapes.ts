import { rgbOf } from '../colour/oklab';
import { labPictureOf, shrunkLab } from '../edges/labPicture';
import { cubicArea, type Cubic } from '../geometry/cubic';
import { assertColourImage, type ColourImage } from '../raster/colourImage';
import { likeAreas } from './likeAreas';
import { mergedRegions } from './mergedRegions';
import type { Progress } from './pullInk';
import { sharedBorders } from './sharedBorders';

export type PullShapesOptions = {
  /** How many colours the picture is brought down to, 1 to 64. */
  colours: number;
  /** What is smaller becomes part of what lies about it, px². */
  smallest: number;
  /** How far outlines may run from the borders that were found, px. */
  tolerance: number;
};

/** An area of like colour: its outer outline first, then those of what lies within it, px; its colour (sRGB 0…255) and size, px². */
export type PulledShape = { loops: Cubic[][]; colour: [number, number, number]; area: number };

const MOST_COLOURS = 64;
/** The longer side of what is looked at, px. */
const LONGEST = 1300;
const COMPLEXITY = 96;
/** Borders between pixels go up and down by half a pixel: curves are fitted no closer. */
const STAIRS = 0.75;

/**
 * A picture's areas of like colour as shapes that share their borders, the largest first: together they cover it, without slits
 * and without overlaps. Like pixels are merged to regions (so that noise and texture are smoothed away), regions brought down to
 * some colours, and each stretch of a border fitted once, for both its sides.
 * @throws RangeError for a bad picture, a number of colours that is not whole, from 1 to 64, a size below 0, or a tolerance not above 0.
 */
export function pullShapes(
  image: ColourImage,
  { colours, smallest, tolerance }: PullShapesOptions,
  progress: Progress = () => {},
): PulledShape[] {
  assertColourImage(image);
  if (!Number.isInteger(colours) || colours < 1 || colours > MOST_COLOURS)
    throw new RangeError(`there are 1 to ${MOST_COLOURS} colours`);
  if (!(smallest >= 0) || !Number.isFinite(smallest)) throw new RangeError('the smallest size must be 0 or more');
  if (!(tolerance > 0) || !Number.isFinite(tolerance)) throw new RangeError('the tolerance must be a number above 0');
  progress(0);
  const by = Math.max(1, Math.round(Math.max(image.width, image.height) / LONGEST));
  const picture = shrunkLab(labPictureOf(image), by);
  progress(0.1);
  const regions = mergedRegions(picture, COMPLEXITY);
  progress(0.4);
  const areas = likeAreas(picture, regions, colours, smallest / (by * by));
  progress(0.7);
  const shapes = sharedBorders(areas, by, Math.max(tolerance, STAIRS * by), (share) => progress(0.7 + 0.3 * share));
  const list = shapes.map(({ sort, loops }) => ({ loops, colour: rgbOf(areas.colours[sort]), area: sizeOf(loops) }));
  progress(1);
  return list.sort((a, b) => b.area - a.area);
}

const sizeOf = (loops: readonly Cubic[][]): number => Math.abs(loops.flat().reduce((sum, c) => sum + cubicArea(c), 0));

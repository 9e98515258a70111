import { labDistance, type Lab } from '../colour/oklab';
import { labPictureOf, shrunkLab } from '../edges/labPicture';
import { evaluate } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import { assertPoint, type Point } from '../geometry/point';
import { areaMask } from '../raster/areaMask';
import { blurredValues } from '../raster/blur';
import { assertColourImage, type ColourImage } from '../raster/colourImage';
import { contours, signedArea } from '../raster/contours';
import { meanAt, mergedRegions, type Regions } from './mergedRegions';

/** The longer side of what is looked at, px. */
const LONGEST = 1000;
const COMPLEXITY = 96;
/** A region of which so much lies within the outline is the thing's, unless it looks like the ground about it. */
const WITHIN = 0.7;
const GROUND = 0.03;
/** The ground's own shadow is no darker than this share of it. */
const DARKEST = 0.4;
/** Ground makes up so much of what lies within the outline at least: another thing may reach into it. */
const PART = 0.05;
/** What is smaller than this share of the largest piece is a crumb. */
const CRUMB = 0.02;
const EVEN = 1.5;
/** A curve of an outline is taken by so many places. */
const PLACES = 20;

/**
 * The thing that a loose outline goes around: closed outlines, in shares of the picture's sides, of what within it is not of the
 * ground that reaches out beyond it (even-odd: holes too). Like pixels are merged to regions (see `mergedRegions`); those that lie mostly
 * within are the thing's. Empty where nothing stands out. @throws RangeError for a bad picture or place, or fewer than three places.
 */
export function thingWithin(image: ColourImage, loose: readonly Point[]): Point[][] {
  assertColourImage(image);
  if (loose.length < 3) throw new RangeError('an outline needs at least three places');
  loose.forEach((p, i) => assertPoint(p, `place ${i}`));
  const by = Math.max(1, Math.round(Math.max(image.width, image.height) / LONGEST));
  const picture = shrunkLab(labPictureOf(image), by);
  const { width, height } = picture;
  const area = areaMask(picture, [loose.map((p) => ({ x: p.x * width, y: p.y * height }))]);
  if (!area) return [];
  const regions = mergedRegions(picture, COMPLEXITY);
  const inside = new Int32Array(regions.count);
  for (let y = 0; y < area.height; y++)
    for (let x = 0; x < area.width; x++)
      if (area.mask[y * area.width + x]) inside[regions.label[(area.y + y) * width + area.x + x]]++;
  const isThing = thingOf(regions, inside);
  const mask = Float32Array.from(regions.label, (k) => (isThing[k] ? 1 : 0));
  // Marching squares find what is darker than a level.
  const even = blurredValues(mask, width, height, EVEN).map((v) => 255 * (1 - v));
  const outlines = contours({ width, height, data: even }, 127.5);
  const largest = outlines.reduce((most, o) => Math.max(most, Math.abs(signedArea(o))), 0);
  return outlines
    .filter((o) => Math.abs(signedArea(o)) > CRUMB * largest)
    .map((o) =>
      fitCurve(o, { tolerance: 0.8, closed: true }).flatMap((c) =>
        Array.from({ length: PLACES }, (_, i) => {
          const p = evaluate(c, i / PLACES);
          return { x: p.x / width, y: p.y / height };
        }),
      ),
    );
}

/** Which regions are the thing's. */
function thingOf({ count, size, mean }: Regions, inside: Int32Array): boolean[] {
  const lab = (k: number): Lab => meanAt(mean, k);
  const isWithin = Array.from({ length: count }, (_, k) => inside[k] >= WITHIN * size[k]);
  const least = PART * inside.reduce((a, b) => a + b, 0);
  const ground = isWithin.flatMap((is, k) => (!is && inside[k] > least ? [lab(k)] : []));
  return isWithin.map((is, k) => is && !ground.some((g) => labDistance(inShadow(g, lab(k)), lab(k)) < GROUND));
}

/** A colour as it is in shadow, as dark as another: less light makes all of its figures smaller by the same share. */
function inShadow(ground: Lab, [lightness]: Lab): Lab {
  const share = Math.min(1, Math.max(DARKEST, lightness / ground[0]));
  return [share * ground[0], share * ground[1], share * ground[2]];
}

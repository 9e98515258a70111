import { assertPoint, cross, subtract, type Point } from '../geometry/point';
import { assertGrayImage, type GrayImage } from './grayImage';
import { cornersOfBox, homographyBetween } from './homography';
import { warp } from './warp';

export type Quad = [Point, Point, Point, Point];

/**
 * A page that was photographed from aside, seen from straight above: what lies between four corners (of the picture, in
 * px; from the page's upper left one on, clockwise) fills a picture of `size`. Corners may lie outside the picture: what
 * it does not show is drawn out from its edge.
 * @throws RangeError for corners that are not finite or do not make a convex four-sided figure, and for a size that is
 * not of whole pixels.
 */
export function rectify(image: GrayImage, corners: Quad, size: { width: number; height: number }): GrayImage {
  assertGrayImage(image);
  assertQuad(corners);
  const { width, height } = size ?? {};
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new RangeError('the size must be of at least one whole pixel each way');
  const toSource = homographyBetween(cornersOfBox(width, height), corners);
  const { data } = warp({ ...image, channels: 1 }, { width, height }, toSource, 'edge');
  return { width, height, data: new Uint8Array(data.buffer) };
}

/** @throws RangeError unless the corners make a convex four-sided figure that is walked one way round. */
export function assertQuad(corners: readonly Point[]): void {
  if (!Array.isArray(corners) || corners.length !== 4) throw new RangeError('four corners are needed');
  corners.forEach((p, i) => assertPoint(p, `corner ${i}`));
  if (!isConvex(corners)) throw new RangeError('the four corners must make a convex figure, each a corner of its own');
}

/** Whether four corners, taken in their order, turn the same way at each. */
export function isConvex(corners: readonly Point[]): boolean {
  const turns = corners.map((p, i) => {
    const [b, c] = [corners[(i + 1) % 4], corners[(i + 2) % 4]];
    return cross(subtract(b, p), subtract(c, b));
  });
  return turns.every((t) => t > 1e-9) || turns.every((t) => t < -1e-9);
}

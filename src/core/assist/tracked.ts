import { inGrey, type Picture } from '../colour/picture';
import { labPictureOf, type LabPicture } from '../edges/labPicture';
import { inkIn, type Ink } from './inkMask';

export type Target = 'ink' | 'edge';

/**
 * The ink of a picture made ready for lines to be laid against it: how much darker each pixel is than its paper; from `clear`
 * on there is ink for sure.
 */
export type TrackedInk = {
  readonly target: 'ink';
  readonly width: number;
  readonly height: number;
  readonly values: Uint8Array;
  readonly clear: number;
};

/** A picture made ready for lines to be laid against its edges, which its colours tell. */
export type TrackedEdges = { readonly target: 'edge'; readonly lab: LabPicture };

export type Tracked = TrackedInk | TrackedEdges;

const known = new WeakMap<Picture, TrackedInk>();

/** Makes the ink of a picture ready; done once for each picture. */
export function trackedInkOf(image: Picture): TrackedInk {
  let made = known.get(image);
  if (!made) known.set(image, (made = trackedInk(inkIn(inGrey(image)))));
  return made;
}

/** Makes a picture ready; done once for each picture and target. */
export const trackedOf = (image: Picture, target: Target): Tracked =>
  target === 'ink' ? trackedInkOf(image) : { target, lab: labPictureOf(image) };

/** The same from ink that has been told from its paper before. */
export const trackedInk = ({ width, height, dark, rim }: Ink): TrackedInk => ({
  target: 'ink',
  width,
  height,
  values: dark,
  clear: 0.42 * rim,
});

/** The value at a place between pixels' centres; that of the nearest pixel beyond the edge. */
export function trackedAt({ width, height, values }: TrackedInk, x: number, y: number): number {
  const px = Math.min(width - 1.001, Math.max(0, x - 0.5));
  const py = Math.min(height - 1.001, Math.max(0, y - 0.5));
  const l = px | 0;
  const t = py | 0;
  const fx = px - l;
  const i = t * width + l;
  const above = values[i] + (values[i + 1] - values[i]) * fx;
  const below = values[i + width] + (values[i + width + 1] - values[i + width]) * fx;
  return above + (below - above) * (py - t);
}

export function assertReach({ reach, target }: { reach: number; target?: Target }): void {
  if (!(reach > 0) || !Number.isFinite(reach)) throw new RangeError('the reach must be a number above 0');
  if (target !== undefined && target !== 'ink' && target !== 'edge')
    throw new RangeError('the target must be ink or edge');
}

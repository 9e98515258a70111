import { blurred } from '../raster/blur';
import type { GrayImage } from '../raster/grayImage';
import { inkIn, type Ink } from './inkMask';

export type Target = 'ink' | 'edge';

/**
 * A picture made ready for lines to be laid against it. Ink: how much darker each pixel is than its paper. Edge: the
 * smoothed values, whose slope tells edges. `clear` is the value (ink) or the slope a px (edge) from which on
 * there is something for sure.
 */
export type Tracked = {
  readonly target: Target;
  readonly width: number;
  readonly height: number;
  readonly values: Uint8Array;
  readonly clear: number;
};

/** Edges are looked for on a picture smoothed so much, px; logarithms would move them to their dark side. */
const EDGE_SIGMA = 1.3;
const CLEAR_SLOPE = 2.5;

const known = new WeakMap<GrayImage, Partial<Record<Target, Tracked>>>();

/** Makes a picture ready; done once for each picture and target. */
export function trackedOf(image: GrayImage, target: Target): Tracked {
  let made = known.get(image);
  if (!made) known.set(image, (made = {}));
  return (made[target] ??= target === 'ink' ? inkTracked(image) : edgeTracked(image));
}

const inkTracked = (image: GrayImage): Tracked => trackedInk(inkIn(image));

/** The same from ink that has been told from its paper before. */
export const trackedInk = ({ width, height, dark, rim }: Ink): Tracked => ({
  target: 'ink',
  width,
  height,
  values: dark,
  clear: 0.42 * rim,
});

const edgeTracked = (image: GrayImage): Tracked => ({
  target: 'edge',
  width: image.width,
  height: image.height,
  values: blurred(image, EDGE_SIGMA).data,
  clear: CLEAR_SLOPE,
});

/** The value at a place between pixels' centres; that of the nearest pixel beyond the edge. */
export function trackedAt({ width, height, values }: Tracked, x: number, y: number): number {
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

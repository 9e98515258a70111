import type { AreaMask } from '../raster/areaMask';
import { distanceField } from '../raster/distanceField';

/** A border of so many pixels is left out, where at least so much of the area's depth is left. */
const BORDER = { px: 4, share: 0.5 };

/** Where in the window the area is, its border left out: there colours are mixed with what lies next to it, or with ink. */
export function withoutBorder({ width, height, mask }: AreaMask): number[] {
  const depth = distanceField(mask, width, height);
  const deepest = depth.reduce((a, b) => Math.max(a, b), 0);
  const least = Math.min(BORDER.px, BORDER.share * deepest);
  const found: number[] = [];
  depth.forEach((d, i) => d > least && found.push(i));
  return found;
}

import Flatbush from 'flatbush';
import type { Box } from './point';

/** Boxes by where they lie; found ones are places in the list. At least one is needed. */
export function indexOfBoxes(boxes: readonly Box[]): Flatbush {
  const index = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  return index;
}

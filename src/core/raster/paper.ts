import { closed } from './extremes';
import { valueAt, type GrayImage } from './grayImage';

/** How light the paper is, on a coarse grid: one value for each block of `side` px. */
export type PaperField = { side: number; blocks: GrayImage };

/** Blocks along the longer side of a picture. */
const BLOCKS = 48;
/** Of a block's pixels, this share is darker than its paper. */
const QUANTILE = 0.8;

/**
 * How light the paper is where there is no ink: a high quantile of each block, so that strokes do not count; blocks
 * that are dark throughout (a filled area, a hand's shadow edge) take over from the lighter ones around them; then
 * smoothed. The light on a page changes slowly, which is what tells it from ink.
 */
export function paperField(image: GrayImage): PaperField {
  const side = Math.max(4, Math.ceil(Math.max(image.width, image.height) / BLOCKS));
  const [width, height] = [Math.ceil(image.width / side), Math.ceil(image.height / side)];
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data[y * width + x] = blockPaper(image, x, y, side);
  const blocks = smoothed(closed({ width, height, data }, 3));
  return { side, blocks };
}

/** The paper's value at a place of the picture. */
export const paperAt = ({ side, blocks }: PaperField, x: number, y: number): number =>
  valueAt(blocks, x / side, y / side);

/** Calls back for each row with the paper's values along it: cheaper than asking for each pixel. */
export function paperRow(field: PaperField, y: number, row: Float32Array): void {
  const { side, blocks } = field;
  let x = 0;
  // Values change linearly between the middles of two blocks.
  while (x < row.length) {
    const block = Math.floor(x / side - 0.5) + 1;
    const end = Math.min(row.length, Math.max(x + 1, Math.ceil((block + 0.5) * side)));
    const from = valueAt(blocks, (x + 0.5) / side, (y + 0.5) / side);
    const to = valueAt(blocks, (end - 0.5) / side, (y + 0.5) / side);
    const steps = Math.max(1, end - 1 - x);
    for (let k = x; k < end; k++) row[k] = from + ((to - from) * (k - x)) / steps;
    x = end;
  }
}

function blockPaper(image: GrayImage, bx: number, by: number, side: number): number {
  const counts = new Uint32Array(256);
  let n = 0;
  for (let y = by * side; y < Math.min(image.height, (by + 1) * side); y++) {
    for (let x = bx * side; x < Math.min(image.width, (bx + 1) * side); x++) {
      counts[image.data[y * image.width + x]]++;
      n++;
    }
  }
  let below = 0;
  for (let v = 0; v < 256; v++) {
    below += counts[v];
    if (below >= QUANTILE * n) return v;
  }
  return 255;
}

function smoothed(image: GrayImage): GrayImage {
  const { width, height, data } = image;
  const result = new Uint8Array(data.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let [sum, n] = [0, 0];
      for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
        for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
          sum += data[v * width + u];
          n++;
        }
      }
      result[y * width + x] = Math.round(sum / n);
    }
  }
  return { width, height, data: result };
}

import { closed, opened } from './extremes';
import { shrunk, type GrayImage } from './grayImage';

/** A picture is looked at about so long, px: fine strokes are then a few px broad. Broad ones are, where it is smaller. */
export const INK_LONGEST = 1280;
const SMALL = 320;
/** Half the side of what is closed and opened over, px: strokes are narrower, things are broader. */
const HALF = 4;
/** Differences below this, or below so many deviations of the picture's noise, are grain; grey values. */
const GRAIN = 8;
const DEVIATIONS = 4;
/** From this share on, what stands out is strokes of ink: sketches have 0.83 and more, photographs 0.55 and less. */
const INKED = 0.8;
/** The same where a picture is looked at small, and what is round in a photograph is as small as a stroke. */
const INKED_SMALL = 0.9;

/**
 * How much of what stands out in thin stretches of a picture is darker than what is around it, 0…1: of a sketch nearly
 * all, for ink is laid on paper; of a photograph about half, for texture and edges go both ways. By the black and the
 * white top-hat (Serra 1982; Meyer 1979), each squared and summed where it is above the grain. 1 where nothing stands out.
 */
export function darkThinShare(image: GrayImage, longest = INK_LONGEST): number {
  const small = shrunk(image, Math.max(1, Math.floor(Math.max(image.width, image.height) / longest)));
  const [filled, cleared] = [closed(small, HALF), opened(small, HALF)];
  const grain = Math.max(GRAIN, DEVIATIONS * noiseOf(small));
  let [dark, light] = [0, 0];
  for (let i = 0; i < small.data.length; i++) {
    const v = small.data[i];
    if (filled.data[i] - v > grain) dark += (filled.data[i] - v) ** 2;
    if (v - cleared.data[i] > grain) light += (v - cleared.data[i]) ** 2;
  }
  return dark + light === 0 ? 1 : dark / (dark + light);
}

/** Whether lines over a picture are measured against its ink, as in a sketch, or against its edges, as in a photograph. */
export const inkOrEdge = (image: GrayImage): 'ink' | 'edge' =>
  darkThinShare(image) >= INKED || darkThinShare(image, SMALL) >= INKED_SMALL ? 'ink' : 'edge';

/**
 * The standard deviation of a picture's noise: by the difference of two Laplacians, which leaves little of what is drawn
 * (Immerkær 1996, "Fast noise variance estimation"), with the median of absolute values in place of their mean.
 */
function noiseOf({ width, height, data }: GrayImage): number {
  const [columns, rows] = [Math.max(0, (width - 1) >> 1), Math.max(0, (height - 1) >> 1)];
  const values = new Int16Array(columns * rows);
  const row = (k: number): number => data[k - 1] - 2 * data[k] + data[k + 1];
  for (let v = 0; v < rows; v++)
    for (let u = 0; u < columns; u++) {
      const i = (2 * v + 1) * width + 2 * u + 1;
      values[v * columns + u] = Math.abs(row(i - width) - 2 * row(i) + row(i + width));
    }
  values.sort();
  return values.length === 0 ? 0 : values[values.length >> 1] / (6 * 0.6745);
}

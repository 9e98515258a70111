import type { ColourImage } from '../raster/colourImage';
import { seeded } from '../seeded';
import { labDistance, labOf } from './oklab';
import { paletteOf } from './palette';

type Rgb = [number, number, number];
/** Areas of some colours in upright bands, each with a share, noise of so much, and edges that are mixed. */
function bands(colours: [Rgb, number][], noise: number, seed = 3): ColourImage {
  const [width, height] = [200, 100];
  const random = seeded(seed);
  const data = new Uint8Array(3 * width * height);
  const starts = colours.map((_, k) => width * colours.slice(0, k).reduce((sum, [, share]) => sum + share, 0));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const k = starts.findLastIndex((s) => s <= x);
      const isEdge = k > 0 && x - starts[k] < 1;
      for (let c = 0; c < 3; c++) {
        const v = isEdge ? (colours[k][0][c] + colours[k - 1][0][c]) / 2 : colours[k][0][c];
        data[3 * (y * width + x) + c] = Math.max(0, Math.min(255, v + noise * (random() + random() - 1)));
      }
    }
  return { width, height, channels: 3, data };
}
const off = (a: Rgb, b: Rgb): number => labDistance(labOf(...a), labOf(...b));

const picture: [Rgb, number][] = [
  [[236, 228, 208], 0.5],
  [[70, 96, 62], 0.3],
  [[168, 70, 31], 0.14],
  [[40, 60, 130], 0.04],
  [[244, 194, 13], 0.02],
];

test.each([0, 12, 30])('the colours of a picture with noise of %d, small accents too, and their shares', (noise) => {
  const found = paletteOf(bands(picture, noise), { count: 5 });
  expect(found).toHaveLength(5);
  for (const [colour, share] of picture) {
    const best = found.reduce((a, b) => (off(b.colour, colour) < off(a.colour, colour) ? b : a));
    expect(off(best.colour, colour)).toBeLessThan(0.03);
    expect(Math.abs(best.share - share)).toBeLessThan(0.02);
  }
  expect(found.map((f) => f.share)).toEqual(found.map((f) => f.share).sort((a, b) => b - a));
});

test('as many as there are, where more are asked for; all shares together are the whole', () => {
  const found = paletteOf(bands(picture.slice(0, 2), 0), { count: 8 });
  expect(found.length).toBeGreaterThanOrEqual(2);
  expect(found.length).toBeLessThan(4);
  expect(found.reduce((sum, f) => sum + f.share, 0)).toBeCloseTo(1, 6);
  expect(paletteOf(bands([[[9, 9, 9], 1]], 0), { count: 3 })).toEqual([{ colour: [9, 9, 9], share: 1 }]);
});

test('bad input is refused', () => {
  const good = bands(picture, 0);
  for (const count of [0, 1.5, NaN, 999]) expect(() => paletteOf(good, { count })).toThrow(RangeError);
  expect(() => paletteOf({ ...good, width: 7 }, { count: 3 })).toThrow(RangeError);
  expect(() => paletteOf({ ...good, channels: 4 as 3 }, { count: 3 })).toThrow(RangeError);
});

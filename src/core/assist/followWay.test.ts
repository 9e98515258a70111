import { follow, type Point } from '..';
import { evaluate } from '../geometry/cubic';
import { rgbOf, type Lab } from '../colour/oklab';
import { seeded } from '../seeded';
import { photo, photos } from '../test/photo';
import { distanceToCurves, walk } from '../test/strokes';
import type { ColourImage } from '../raster/colourImage';
import type { GrayImage } from '../raster/grayImage';

const [WIDTH, HEIGHT] = [520, 240];
/** The height of a wave that everything here lies along. */
const wave = (x: number): number => 120 + 40 * Math.sin(x / 60);
/** How far a place lies from it, above 0 below it. */
const off = (x: number, y: number): number => (y - wave(x)) / Math.hypot(1, (40 / 60) * Math.cos(x / 60));
const smooth = (d: number): number => Math.min(1, Math.max(0, d + 0.5));

function inkPicture(seed: number): GrayImage {
  const random = seeded(seed);
  const data = new Uint8Array(WIDTH * HEIGHT);
  for (let i = 0; i < data.length; i++) {
    const ink = smooth(3 - Math.abs(off((i % WIDTH) + 0.5, Math.floor(i / WIDTH) + 0.5)));
    data[i] = 235 - 170 * ink + 14 * (random() - 0.5);
  }
  return { width: WIDTH, height: HEIGHT, data };
}
/** Two colours as light as each other, one above the wave, one below it. */
function colourPicture(seed: number): ColourImage {
  const random = seeded(seed);
  const data = new Uint8Array(3 * WIDTH * HEIGHT);
  const [rose, blue] = [rgbOf([0.65, 0.1, 0.02]), rgbOf([0.65, -0.04, -0.08])];
  for (let i = 0; i < WIDTH * HEIGHT; i++) {
    const share = smooth(off((i % WIDTH) + 0.5, Math.floor(i / WIDTH) + 0.5));
    for (let c = 0; c < 3; c++) data[3 * i + c] = rose[c] + (blue[c] - rose[c]) * share + 8 * (random() - 0.5);
  }
  return { width: WIDTH, height: HEIGHT, channels: 3, data };
}
/** Where a hand went that strays up to 3 px. */
function way(seed: number): Point[] {
  const random = seeded(seed);
  return Array.from({ length: 46 }, (_, i) => ({
    x: 30 + 10 * i + 6 * (random() - 0.5),
    y: wave(30 + 10 * i) + 6 * (random() - 0.5),
  }));
}

test.each<['ink' | 'edge', () => GrayImage | ColourImage]>([
  ['ink', () => inkPicture(3)],
  ['edge', () => colourPicture(4)],
])('along %s: few smooth curves where it is, from a hand that strays; each time the same', (target, make) => {
  const image = make();
  const found = follow(image, way(7), { target });
  const places = found.flatMap((c) => [0, 0.25, 0.5, 0.75].map((t) => evaluate(c, t)));
  const near = places.filter((p) => Math.abs(off(p.x, p.y)) < 1.5).length;
  expect(near / places.length).toBeGreaterThan(0.96);
  expect(found.length).toBeLessThanOrEqual(12);
  for (let i = 1; i < found.length; i++) expect(found[i][0]).toEqual(found[i - 1][3]);
  expect(Math.abs(found[0][0].x - way(7)[0].x)).toBeLessThan(8);
  expect(Math.abs(found.at(-1)![3].x - way(7).at(-1)!.x)).toBeLessThan(8);
  expect(follow(image, way(7), { target })).toEqual(found);
});

test.each(photos().map((p) => [p.name, p] as const))('around things in a photo: %s', (_, { image, outlines }) => {
  const random = seeded(5);
  for (const truth of outlines) {
    const hand = walk(truth, 10).map((p) => ({ x: p.x + 6 * (random() - 0.5), y: p.y + 6 * (random() - 0.5) }));
    const found = follow(image, hand, { target: 'edge' });
    const places = walk(found, 2);
    expect(places.filter((p) => distanceToCurves(truth, p) < 1.5).length / places.length).toBeGreaterThan(0.95);
    expect(found.length).toBeLessThanOrEqual(1.5 * truth.length);
  }
});

test('over a stretch that is lost the line goes on as it came', () => {
  // Both sides become alike, and other again.
  const clear = (x: number): number => Math.min(1, Math.max(0, (Math.abs(x - 245) - 20) / 60));
  const across = (x: number, y: number): Lab => [0.6, clear(x) * (y < 120 ? 0.06 : -0.06), 0.02];
  const image = photo(520, 240, across, [], { blur: 1, noise: 4, seed: 3 });
  const hand = Array.from({ length: 45 }, (_, i) => ({ x: 30 + 10 * i, y: 120 + 3 * Math.sin(i) }));
  const found = follow(image, hand, { target: 'edge' });
  for (const p of walk(found, 3))
    if (p.x > 45 && p.x < 455) expect(Math.abs(p.y - 120)).toBeLessThan(p.x > 215 && p.x < 275 ? 3 : 1.5);
  expect(found.length).toBeLessThan(5);
});

test('what cannot be followed is refused with words', () => {
  const image = inkPicture(3);
  for (const bad of [
    [],
    [{ x: 1, y: 1 }],
    [
      { x: NaN, y: 1 },
      { x: 9, y: 9 },
    ],
    [
      { x: -40, y: 9 },
      { x: 90, y: 90 },
    ],
  ])
    expect(() => follow(image, bad, { target: 'ink' })).toThrow(RangeError);
  expect(() => follow(image, way(7), { target: 'ink', tolerance: 0 })).toThrow(/tolerance/);
  expect(() => follow(image, way(7), { target: 'paper' as 'ink' })).toThrow(/target/);
  expect(() => follow({ ...image, width: 3 }, way(7), { target: 'ink' })).toThrow(RangeError);
});

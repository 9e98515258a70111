import { straightCubic } from '../geometry/cubic';
import { seeded } from '../seeded';
import { inkPicture, type Inked } from '../test/inkPicture';
import { grayImage, type GrayImage } from './grayImage';
import { darkThinShare, inkOrEdge } from './inkOrEdge';

const [WIDTH, HEIGHT] = [700, 500];

/** Strokes across a page, apart from each other but for two that cross them all. */
const strokes = (count: number, width: number): Inked[] => [
  ...Array.from({ length: count }, (_, i): Inked => {
    const y = 40 + (420 * i) / count;
    return { cubics: [straightCubic({ x: 40, y }, { x: 640, y: y + 12 * Math.sin(i) })], width };
  }),
  { cubics: [straightCubic({ x: 60, y: 20 }, { x: 500, y: 480 })], width },
  { cubics: [straightCubic({ x: 620, y: 30 }, { x: 300, y: 470 })], width },
];

function grained(image: GrayImage, by: number, seed: number): GrayImage {
  const random = seeded(seed);
  const data = image.data.map((v) => Math.max(0, Math.min(255, v - 30 + by * (random() + random() - 1))));
  return { ...image, data };
}

/** Things of any tone upon others: discs over each other, each a little uneven. */
function things(seed: number): GrayImage {
  const random = seeded(seed);
  const image = grayImage(WIDTH, HEIGHT);
  image.data.fill(90 + 120 * random());
  for (let n = 0; n < 60; n++) {
    const [x, y, r, tone] = [WIDTH * random(), HEIGHT * random(), 6 + 70 * random() ** 2, 20 + 220 * random()];
    for (let v = Math.max(0, Math.floor(y - r)); v < Math.min(HEIGHT, y + r); v++)
      for (let u = Math.max(0, Math.floor(x - r)); u < Math.min(WIDTH, x + r); u++)
        if (Math.hypot(u - x, v - y) < r) image.data[v * WIDTH + u] = tone;
  }
  return grained(image, 14, seed + 1);
}

test.each([
  ['fine strokes', 12, 2],
  ['many strokes', 18, 4],
  ['broad strokes', 4, 14],
])('%s on grainy paper are ink', (_, count, width) => {
  for (const seed of [1, 2, 3]) {
    const image = grained(inkPicture(WIDTH, HEIGHT, strokes(count, width)), 18, seed);
    expect(inkOrEdge(image)).toBe('ink');
  }
});

test('things upon things are edges, and so is what goes both ways alike', () => {
  for (const seed of [5, 6, 7, 8, 9, 10]) expect(inkOrEdge(things(seed))).toBe('edge');
  const waves = grayImage(WIDTH, HEIGHT);
  waves.data.forEach((_, i) => {
    waves.data[i] = 128 + 60 * Math.sin((i % WIDTH) / 1.7) * Math.cos(Math.floor(i / WIDTH) / 2.3);
  });
  expect(darkThinShare(waves)).toBeCloseTo(0.5, 1);
});

test('where nothing stands out, ink is still to come', () => {
  const blank = grayImage(60, 40);
  blank.data.fill(240);
  expect(inkOrEdge(blank)).toBe('ink');
});

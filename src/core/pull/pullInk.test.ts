import { pullInk, type Cubic, type GrayImage, type Point } from '@/core';
import { seeded } from '@/core/seeded';
import { nearestOnCubic } from '../geometry/nearest';
import { contours, signedArea } from '../raster/contours';
import { distanceField } from '../raster/distanceField';
import { grayImage } from '../raster/grayImage';
import { thinned } from '../raster/thin';
import { walk } from '../test/strokes';

/** Draws round strokes on paper with a soft edge. */
function drawn(width: number, height: number, strokes: { cubics: Cubic[]; width: number }[], paper = 240): GrayImage {
  const image = grayImage(width, height);
  image.data.fill(paper);
  for (const s of strokes) {
    for (const p of walk(s.cubics, 0.7)) {
      const reach = s.width / 2 + 1;
      for (let y = Math.max(0, Math.floor(p.y - reach)); y < Math.min(height, p.y + reach); y++) {
        for (let x = Math.max(0, Math.floor(p.x - reach)); x < Math.min(width, p.x + reach); x++) {
          const edge = s.width / 2 + 0.5 - Math.hypot(x + 0.5 - p.x, y + 0.5 - p.y);
          const v = paper - (paper - 40) * Math.min(1, Math.max(0, edge));
          const i = y * width + x;
          image.data[i] = Math.min(image.data[i], v);
        }
      }
    }
  }
  return image;
}

const cubic = (...n: number[]): Cubic => [0, 2, 4, 6].map((i) => ({ x: n[i], y: n[i + 1] })) as Cubic;
const distanceTo = (cubics: readonly Cubic[], p: Point): number =>
  Math.min(...cubics.map((c) => nearestOnCubic(c, p).distance));

test('two strokes that cross are two lines, straight through the crossing', () => {
  const strokes = [
    { cubics: [cubic(20, 60, 120, 20, 200, 180, 280, 120)], width: 8 },
    { cubics: [cubic(40, 180, 120, 160, 180, 60, 270, 20)], width: 6 },
  ];
  const runs = pullInk(drawn(300, 200, strokes), { tolerance: 1, mode: 'centre' });
  expect(runs).toHaveLength(2);
  for (const s of strokes) {
    const own = runs.find((r) => walk(s.cubics, 3).every((p) => distanceTo(r.cubics, p) < 1.5));
    expect(own).toBeDefined();
    expect(Math.abs(own!.width! - s.width)).toBeLessThan(1.2);
    expect(own!.cubics.length).toBeLessThanOrEqual(2);
  }
});

test('strokes that cross at a shallow angle are told apart where they lie on each other', () => {
  const strokes = [cubic(20, 60, 120, 84, 260, 100, 380, 104), cubic(20, 104, 140, 98, 260, 84, 380, 56)].map((c) => ({
    cubics: [c],
    width: 8,
  }));
  const runs = pullInk(drawn(400, 160, strokes), { tolerance: 1, mode: 'centre' });
  expect(runs).toHaveLength(2);
  for (const s of strokes)
    expect(
      Math.min(...runs.map((r) => Math.max(...walk(s.cubics, 3).map((p) => distanceTo(r.cubics, p))))),
    ).toBeLessThan(3);
});

test('a stroke that runs into another ends on its middle', () => {
  const bar = { cubics: [cubic(20, 100, 100, 100, 200, 100, 280, 100)], width: 8 };
  const stem = { cubics: [cubic(150, 100, 150, 80, 170, 50, 200, 20)], width: 6 };
  const runs = pullInk(drawn(300, 140, [bar, stem]), { tolerance: 1, mode: 'centre' });
  expect(runs).toHaveLength(2);
  const [first, last] = [runs[1].cubics[0][0], runs[1].cubics.at(-1)![3]];
  expect(Math.min(...[first, last].map((p) => Math.hypot(p.x - 150, p.y - 100)))).toBeLessThan(2);
});

test('a ring is one closed line; in outline mode it is two outlines that run opposite ways', () => {
  const circle = (r: number): Cubic[] => {
    const k = 0.5523 * r;
    const at = (x: number, y: number) => [100 + x, 100 + y];
    return [
      cubic(...at(r, 0), ...at(r, k), ...at(k, r), ...at(0, r)),
      cubic(...at(0, r), ...at(-k, r), ...at(-r, k), ...at(-r, 0)),
      cubic(...at(-r, 0), ...at(-r, -k), ...at(-k, -r), ...at(0, -r)),
      cubic(...at(0, -r), ...at(k, -r), ...at(r, -k), ...at(r, 0)),
    ];
  };
  const image = drawn(200, 200, [{ cubics: circle(60), width: 12 }]);
  const [ring, ...others] = pullInk(image, { tolerance: 0.7, mode: 'centre' });
  expect([ring.closed, others]).toEqual([true, []]);
  for (const p of walk(ring.cubics, 3)) expect(Math.abs(Math.hypot(p.x - 100, p.y - 100) - 60)).toBeLessThan(1);

  const outlines = pullInk(image, { tolerance: 0.7, mode: 'outline', level: 140 });
  expect(outlines.map((o) => o.closed)).toEqual([true, true]);
  const [outer, inner] = outlines.map((o) => signedArea(walk(o.cubics, 1)));
  expect(Math.sign(outer)).toBe(-Math.sign(inner));
  expect(Math.abs(Math.sqrt(Math.abs(outer) / Math.PI) - 66)).toBeLessThan(1);
  expect(Math.abs(Math.sqrt(Math.abs(inner) / Math.PI) - 54)).toBeLessThan(1);
});

test('bare paper gives nothing, however grainy, and dust is dropped by its size', () => {
  const random = seeded(8);
  const paper = grayImage(200, 150);
  for (let i = 0; i < paper.data.length; i++) paper.data[i] = 236 + 12 * (random() - 0.5);
  for (const mode of ['centre', 'outline'] as const) expect(pullInk(paper, { tolerance: 1, mode })).toEqual([]);
  const short = { cubics: [cubic(50, 50, 54, 50, 58, 50, 64, 50)], width: 6 };
  const long = { cubics: [cubic(50, 90, 80, 90, 110, 90, 150, 90)], width: 6 };
  const image = drawn(200, 150, [short, long]);
  expect(pullInk(image, { tolerance: 1, mode: 'centre' })).toHaveLength(2);
  expect(pullInk(image, { tolerance: 1, mode: 'centre', minimumLength: 40 })).toHaveLength(1);
});

test('a dark corner of the light and a soft shadow are no ink', () => {
  const image = drawn(600, 400, [{ cubics: [cubic(60, 200, 200, 100, 350, 300, 520, 180)], width: 8 }]);
  for (let y = 0; y < 400; y++) {
    for (let x = 0; x < 600; x++) {
      const corner = Math.max(0, 1 - Math.hypot(600 - x, 400 - y) / 170) ** 2;
      const shadow = Math.exp(-((x - 140) ** 2 + (y - 320) ** 2) / 900);
      image.data[y * 600 + x] *= 1 - 0.6 * corner - 0.4 * shadow;
    }
  }
  const runs = pullInk(image, { tolerance: 1, mode: 'centre' });
  expect(runs).toHaveLength(1);
  expect(runs[0].width).toBeGreaterThan(6);
});

test('the distance field is exact', () => {
  const random = seeded(3);
  const [w, h] = [37, 29];
  const mask = Uint8Array.from({ length: w * h }, () => (random() < 0.9 ? 1 : 0));
  const field = distanceField(mask, w, h);
  const isSet = (x: number, y: number): boolean => x >= 0 && y >= 0 && x < w && y < h && mask[y * w + x] === 1;
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let best = Infinity;
      for (let v = -1; v <= h; v++)
        for (let u = -1; u <= w; u++) if (!isSet(u, v)) best = Math.min(best, Math.hypot(u - x, v - y));
      expect(field[y * w + x]).toBeCloseTo(isSet(x, y) ? best : 0, 4);
    }
  }
});

test('thinning leaves lines of one pixel that hang together as the ink does', () => {
  const image = drawn(120, 90, [{ cubics: [cubic(15, 70, 40, -20, 80, 120, 105, 20)], width: 9 }]);
  const mask = Uint8Array.from(image.data, (v) => (v < 140 ? 1 : 0));
  const skeleton = thinned(mask, 120, 90);
  const at = (x: number, y: number): number => skeleton[y * 120 + x] ?? 0;
  let ends = 0;
  skeleton.forEach((v, i) => {
    if (!v) return;
    expect(mask[i]).toBe(1);
    const [x, y] = [i % 120, Math.floor(i / 120)];
    expect(at(x, y) + at(x + 1, y) + at(x, y + 1) + at(x + 1, y + 1)).toBeLessThan(4);
    let around = -1;
    for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) around += at(x + dx, y + dy);
    expect(around).toBeGreaterThan(0);
    if (around === 1) ends++;
  });
  expect(ends).toBe(2);
});

test('contours lie where the values cross the level, and close', () => {
  const disc = grayImage(60, 60);
  for (let i = 0; i < 3600; i++)
    disc.data[i] = Math.max(
      0,
      Math.min(255, 128 + 20 * (Math.hypot((i % 60) + 0.5 - 30, Math.floor(i / 60) + 0.5 - 30) - 18)),
    );
  const [outline, ...others] = contours(disc, 128);
  expect(others).toEqual([]);
  for (const p of outline) expect(Math.abs(Math.hypot(p.x - 30, p.y - 30) - 18)).toBeLessThan(0.1);
  const full = grayImage(5, 4);
  expect(Math.abs(signedArea(contours(full, 100)[0]))).toBeGreaterThan(16);
});

test.each([
  ['no pixels', { width: 0, height: 1, data: new Uint8Array() }, { tolerance: 1, mode: 'centre' }],
  ['an unknown mode', grayImage(3, 3), { tolerance: 1, mode: 'middle' }],
  ['no tolerance', grayImage(3, 3), { tolerance: 0, mode: 'centre' }],
  ['a level beyond all', grayImage(3, 3), { tolerance: 1, mode: 'centre', level: -3 }],
  ['a negative length', grayImage(3, 3), { tolerance: 1, mode: 'centre', minimumLength: -1 }],
])('%s is refused', (_, image, options) => expect(() => pullInk(image, options as never)).toThrow(RangeError));

test('progress is told, and what it throws breaks the work off', () => {
  const image = drawn(120, 90, [{ cubics: [cubic(15, 70, 40, 20, 80, 60, 105, 20)], width: 7 }]);
  const told: number[] = [];
  pullInk(image, { tolerance: 1, mode: 'centre' }, (share) => told.push(share));
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(() =>
    pullInk(image, { tolerance: 1, mode: 'centre' }, () => {
      throw new Error('called off');
    }),
  ).toThrow('called off');
});

import fc from 'fast-check';
import type { Point } from '../geometry/point';
import { seeded } from '../seeded';
import { corrected } from './correct';
import { correctedSize, firstCorrections, type Correction } from './correction';
import { LEAST_BEND, lensBend, lensMap, MOST_BEND, unbentSize } from './lens';
import { rgbaImage, type RgbaImage } from './rgba';

const size = { width: 800, height: 600 };

/** Where a place of the straight world is seen through the lens: found by bisection, on the model's own equation. */
function seen(p: Point, k: number): Point {
  const [x, y] = [p.x - 400, p.y - 300];
  const u = Math.hypot(x, y) / 500;
  let [low, high] = [0, 1.6];
  for (let i = 0; i < 60; i++) {
    const r = (low + high) / 2;
    if (r / (1 + k * r * r) < u) low = r;
    else high = r;
  }
  const by = u > 0 ? low / u : 1;
  return { x: 400 + x * by, y: 300 + y * by };
}
const straightLine = (a: Point, b: Point, count = 48): Point[] =>
  Array.from({ length: count }, (_, i) => ({
    x: a.x + ((b.x - a.x) * i) / (count - 1),
    y: a.y + ((b.y - a.y) * i) / (count - 1),
  }));

test('the bend is read from one line, whatever lens it was, by places that stray a little and a few that stray much', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -0.3, max: 0.4, noNaN: true }),
      fc.integer({ min: 0, max: 3 }),
      fc.double({ min: 120, max: 230, noNaN: true }),
      fc.integer({ min: 1, max: 1e6 }),
      (k, side, off, seed) => {
        const random = seeded(seed);
        const line = straightLine({ x: 150, y: 300 - off }, { x: 650, y: 300 - off * 0.8 })
          .map((p) => (side & 1 ? { x: p.x, y: 600 - p.y } : p))
          .map((p) => (side & 2 ? { x: 400 + (p.y - 300), y: 300 + (p.x - 400) } : p))
          .map((p) => seen(p, k))
          .map((p, i) => ({ x: p.x + random() - 0.5, y: p.y + random() - 0.5 + (i % 23 === 7 ? 25 : 0) }));
        expect(Math.abs(lensBend([line], size)! - k)).toBeLessThan(0.02);
      },
    ),
    { numRuns: 60, seed: 3 },
  );
});

test('several lines tell it more closely than one; what runs through the middle, or is short, tells nothing', () => {
  const random = seeded(4);
  const lines = [
    straightLine({ x: 60, y: 60 }, { x: 740, y: 75 }),
    straightLine({ x: 90, y: 40 }, { x: 80, y: 560 }),
    straightLine({ x: 100, y: 540 }, { x: 700, y: 500 }),
  ].map((l) => l.map((p) => seen(p, -0.12)).map((p) => ({ x: p.x + random() - 0.5, y: p.y + random() - 0.5 })));
  expect(lensBend(lines, size)).toBeCloseTo(-0.12, 2);
  expect(lensBend([straightLine({ x: 100, y: 300 }, { x: 700, y: 300 })], size)).toBeNull();
  expect(lensBend([straightLine({ x: 100, y: 80 }, { x: 130, y: 80 })], size)).toBeNull();
  expect(() => lensBend([[{ x: 0, y: 0 }]], size)).toThrow(RangeError);
  expect(() => lensBend([straightLine({ x: NaN, y: 0 }, { x: 9, y: 9 })], size)).toThrow(RangeError);
});

/** A frame of dark on light, as seen through a lens. */
function frame(k: number): RgbaImage {
  const image = rgbaImage(size.width, size.height);
  for (let y = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++) {
      const [dx, dy] = [x + 0.5 - 400, y + 0.5 - 300];
      const by = 1 / (1 + (k * (dx * dx + dy * dy)) / 250_000);
      const inside = Math.min(330 - Math.abs(dx * by), 230 - Math.abs(dy * by));
      const v = 220 - 180 * Math.min(1, Math.max(0, inside + 0.5));
      image.data.set([v, v, v, 255], (y * size.width + x) * 4);
    }
  return image;
}

test('with the bend taken out straight things are straight, whole, and as large as they were', () => {
  for (const k of [-0.2, -0.05, 0.08, 0.3]) {
    const image = frame(k);
    const lens: Correction = { ...firstCorrections.lens, bend: k };
    const flat = corrected(image, lens);
    expect(correctedSize(size, [lens])).toEqual({ width: flat.width, height: flat.height });
    const [cx, cy] = [flat.width / 2, flat.height / 2];
    const grey = (x: number, y: number): number => flat.data[(Math.floor(y) * flat.width + Math.floor(x)) * 4];
    // Where the upper side lies in a column: by how much of it is dark.
    for (const dx of [-300, -150, 0, 150, 300]) {
      let dark = 0;
      for (let y = cy - 280; y < cy; y++)
        if (y > 0 && flat.data[(Math.floor(y) * flat.width + Math.floor(cx + dx)) * 4 + 3])
          dark += (220 - grey(cx + dx, y)) / 180;
      expect(Math.abs(dark - 230)).toBeLessThan(1.2);
    }
    // It just holds all: bulging, the corners lie in the corners; drawn in, the middles of the sides at the sides.
    const out = new Float64Array(2);
    const map = lensMap(size, flat, k);
    map.place(0, k < 0 ? 0 : cy, out);
    expect(Math.hypot(out[0], out[1] - (k < 0 ? 0 : 300))).toBeLessThan(2);
    map.place(k < 0 ? 0 : cx, 0, out);
    expect(Math.hypot(out[0] - (k < 0 ? 0 : 400), out[1])).toBeLessThan(2);
  }
});

test('the bounds of a bend map a whole picture to finite places', () => {
  for (const k of [LEAST_BEND, MOST_BEND]) {
    const to = unbentSize(size, k);
    const out = new Float64Array(2);
    const map = lensMap(size, to, k);
    map.place(to.width / 2, to.height / 2, out);
    expect([...out]).toEqual([400, 300]);
    const edge = straightLine({ x: 0.5, y: to.height / 2 }, { x: to.width / 2, y: to.height / 2 });
    for (const p of edge) {
      map.place(p.x, p.y, out);
      expect(out.every(Number.isFinite)).toBe(true);
      expect(map.spanAt(p.x, p.y)).toBeGreaterThan(0);
    }
  }
});

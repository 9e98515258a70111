import fc from 'fast-check';
import { rectify, threshold, type GrayImage, type Point } from '@/core';
import { seeded } from '@/core/seeded';
import { grayImage, histogramOf, shrunk, valueAt } from './grayImage';
import { homographyBetween, mapPoint } from './homography';
import { otsuLevel } from './threshold';

const picture = (width: number, height: number, value: (x: number, y: number) => number): GrayImage => {
  const image = grayImage(width, height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      image.data[y * width + x] = Math.max(0, Math.min(255, Math.round(value(x + 0.5, y + 0.5))));
  return image;
};

/** Otsu's criterion by the book: every level tried, both classes' spreads worked out anew. */
function otsuByTrying(counts: Uint32Array): number {
  const within = (level: number): number => {
    let spread = 0;
    for (const [from, to] of [
      [0, level],
      [level, 256],
    ]) {
      let [n, sum] = [0, 0];
      for (let v = from; v < to; v++) {
        n += counts[v];
        sum += v * counts[v];
      }
      for (let v = from; v < to; v++) spread += counts[v] * (v - sum / (n || 1)) ** 2;
    }
    return spread;
  };
  return Array.from({ length: 255 }, (_, i) => i + 1).reduce((best, l) => (within(l) < within(best) - 1e-6 ? l : best));
}

test('Otsu’s level parts as well as the best of all levels', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 4, maxLength: 60 }), (values) => {
      const image = { width: values.length, height: 1, data: Uint8Array.from(values) };
      const counts = histogramOf(image);
      const level = otsuLevel(counts);
      const cut = (l: number) => values.map((v) => v < l).join();
      if (new Set(values).size > 1) expect(cut(level)).toBe(cut(otsuByTrying(counts)));
    }),
  );
});

test('global: what is darker than the level is ink', () => {
  const ramp = picture(256, 1, (x) => x - 0.5);
  const { data } = threshold(ramp, { method: 'global', level: 100 });
  expect([data[99], data[100]]).toEqual([0, 255]);
  expect(
    threshold(
      picture(9, 9, () => 240),
      { method: 'global' },
    ).data.every((v) => v === 255),
  ).toBe(true);
});

test('adaptive: strokes stand clear under uneven light where no one level would do', () => {
  const random = seeded(4);
  const isInk = (x: number, y: number): boolean => Math.abs((x % 50) - 25) < 2 && y > 10;
  const light = (x: number, y: number): number => 240 - 0.3 * x - 0.2 * y;
  const image = picture(400, 300, (x, y) => (isInk(x, y) ? 0.6 : 1) * light(x, y) + 4 * (random() - 0.5));
  const wrong = (mask: GrayImage): number => {
    let n = 0;
    mask.data.forEach((v, i) => {
      const [x, y] = [(i % 400) + 0.5, Math.floor(i / 400) + 0.5];
      if ((v === 0) !== isInk(x, y)) n++;
    });
    return n / mask.data.length;
  };
  expect(wrong(threshold(image, { method: 'adaptive', window: 41 }))).toBeLessThan(0.002);
  expect(wrong(threshold(image, { method: 'global' }))).toBeGreaterThan(0.02);
  const ink = (level: number): number =>
    threshold(image, { method: 'adaptive', window: 41, level }).data.filter((v) => v === 0).length;
  expect(ink(60)).toBeLessThanOrEqual(ink(128));
  expect(ink(128)).toBeLessThan(ink(250));
});

test('a homography takes its four points where they belong, and back', () => {
  const near = fc.double({ min: -30, max: 30, noNaN: true });
  const quad = fc.tuple(near, near, near, near, near, near, near, near).map((d): Point[] =>
    [
      [0, 0],
      [200, 0],
      [200, 150],
      [0, 150],
    ].map(([x, y], i) => ({ x: x + d[2 * i], y: y + d[2 * i + 1] })),
  );
  fc.assert(
    fc.property(quad, quad, (from, to) => {
      const [h, back] = [homographyBetween(from, to), homographyBetween(to, from)];
      from.forEach((p, i) => {
        expect(Math.hypot(mapPoint(h, p).x - to[i].x, mapPoint(h, p).y - to[i].y)).toBeLessThan(1e-6);
        expect(Math.hypot(mapPoint(back, to[i]).x - p.x, mapPoint(back, to[i]).y - p.y)).toBeLessThan(1e-6);
      });
    }),
  );
});

describe('rectify', () => {
  const flat = (u: number, v: number): number => 128 + 90 * Math.sin(u / 17) * Math.cos(v / 13);
  const corners: [Point, Point, Point, Point] = [
    { x: 60, y: 48 },
    { x: 420, y: 30 },
    { x: 452, y: 340 },
    { x: 30, y: 352 },
  ];
  const size = { width: 400, height: 300 };
  const box = [
    { x: 0, y: 0 },
    { x: 400, y: 0 },
    { x: 400, y: 300 },
    { x: 0, y: 300 },
  ];

  test('a known picture seen from aside comes back as it was', () => {
    const toPage = homographyBetween(corners, box);
    const photo = picture(480, 380, (x, y) => {
      const { x: u, y: v } = mapPoint(toPage, { x, y });
      return flat(u, v);
    });
    const seen = rectify(photo, corners, size);
    expect([seen.width, seen.height]).toEqual([400, 300]);
    let [sum, worst] = [0, 0];
    seen.data.forEach((v, i) => {
      const d = Math.abs(v - flat((i % 400) + 0.5, Math.floor(i / 400) + 0.5));
      sum += d;
      worst = Math.max(worst, d);
    });
    expect(sum / seen.data.length).toBeLessThan(0.6);
    expect(worst).toBeLessThan(4);
  });

  test('the corners of the picture itself give it back to the value', () => {
    const image = picture(37, 23, (x, y) => (x * 31 + y * 57) % 256);
    const same = rectify(
      image,
      [
        { x: 0, y: 0 },
        { x: 37, y: 0 },
        { x: 37, y: 23 },
        { x: 0, y: 23 },
      ],
      { width: 37, height: 23 },
    );
    expect(same.data).toEqual(image.data);
  });

  test('made much smaller, it is the mean and does not flicker', () => {
    const checks = picture(400, 400, (x, y) => ((Math.floor(x) + Math.floor(y)) % 2) * 255);
    const all: [Point, Point, Point, Point] = [
      { x: 0, y: 0 },
      { x: 400, y: 0 },
      { x: 400, y: 400 },
      { x: 0, y: 400 },
    ];
    for (const v of rectify(checks, all, { width: 100, height: 100 }).data) expect(Math.abs(v - 127.5)).toBeLessThan(3);
  });

  test.each([
    ['NaN', [{ x: NaN, y: 0 }, corners[1], corners[2], corners[3]], size],
    ['three on a line', [{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 20, y: 0 }, corners[3]], size],
    ['crossed', [corners[0], corners[2], corners[1], corners[3]], size],
    ['no size', corners, { width: 0, height: 3 }],
  ])('%s is refused', (_, quad, to) =>
    expect(() =>
      rectify(
        picture(9, 9, () => 0),
        quad as [Point, Point, Point, Point],
        to,
      ),
    ).toThrow(RangeError),
  );
});

test('values between pixels, and beyond the edge', () => {
  const image = picture(2, 2, (x, y) => (x > 1 ? 100 : 0) + (y > 1 ? 50 : 0));
  expect([valueAt(image, 0.5, 0.5), valueAt(image, 1, 0.5), valueAt(image, 1, 1), valueAt(image, 9, -9)]).toEqual([
    0, 50, 75, 100,
  ]);
  expect(shrunk(image, 2)).toEqual({ width: 1, height: 1, data: Uint8Array.from([75]) });
});

test.each([
  ['no pixels', { width: 0, height: 0, data: new Uint8Array() }, { method: 'global' }],
  ['too few values', { width: 3, height: 3, data: new Uint8Array(8) }, { method: 'global' }],
  ['an unknown method', grayImage(2, 2), { method: 'clever' }],
  ['a level beyond all', grayImage(2, 2), { method: 'global', level: 300 }],
  ['no window', grayImage(2, 2), { method: 'adaptive', window: 0 }],
])('threshold: %s is refused', (_, image, options) =>
  expect(() => threshold(image, options as never)).toThrow(RangeError),
);

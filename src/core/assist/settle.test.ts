import { cubicBounds, settle, type Cubic, type Point } from '@/core';
import { seeded } from '../seeded';
import { inkPicture } from '../test/inkPicture';
import { distanceToCurves, walk } from '../test/strokes';

const p = (x: number, y: number): Point => ({ x, y });
const moved = (c: readonly Cubic[], x: number, y: number): Cubic[] =>
  c.map((q) => q.map((a) => p(a.x + x, a.y + y)) as Cubic);
const wave: Cubic[] = [
  [p(40, 120), p(90, 40), p(150, 40), p(200, 120)],
  [p(200, 120), p(250, 200), p(310, 200), p(360, 120)],
];
const furthest = (run: readonly Cubic[], truth: readonly Cubic[]): number =>
  Math.max(...walk(run, 2).map((q) => distanceToCurves(truth, q)));
const on = { reach: 10, target: 'ink' as const };

test('a line beside its ink comes to lie on it, smooth where it was smooth', () => {
  const image = inkPicture(400, 260, [{ cubics: wave, width: 5 }]);
  const run = settle({ cubics: moved(wave, 3, 5), closed: false }, image, on);
  expect(run.cubics).toHaveLength(2);
  expect(furthest(run.cubics, wave)).toBeLessThan(0.6);
  const [a, b] = run.cubics;
  const turn = Math.atan2(b[1].y - b[0].y, b[1].x - b[0].x) - Math.atan2(a[3].y - a[2].y, a[3].x - a[2].x);
  expect(Math.abs(Math.sin(turn))).toBeLessThan(1e-6);
});

test('nodes disturbed by 6 px: nearly all of the length ends within a px', () => {
  const image = inkPicture(400, 260, [{ cubics: wave, width: 6 }]);
  let [near, all] = [0, 0];
  for (let seed = 1; seed <= 12; seed++) {
    const random = seeded(seed);
    const by = [0, 1, 2].map(() => {
      const a = 2 * Math.PI * random();
      return p(6 * Math.cos(a), 6 * Math.sin(a));
    });
    const cubics = wave.map(
      (c, k) => c.map((q, i) => p(q.x + by[k + (i > 1 ? 1 : 0)].x, q.y + by[k + (i > 1 ? 1 : 0)].y)) as Cubic,
    );
    const distances = walk(settle({ cubics, closed: false }, image, on).cubics, 2).map((q) =>
      distanceToCurves(wave, q),
    );
    near += distances.filter((d) => d <= 1).length;
    all += distances.length;
  }
  expect(near / all).toBeGreaterThan(0.97);
});

test('a neighbour 12 px away is left alone, though the line was moved towards it', () => {
  const gentle: Cubic[] = [[p(40, 100), p(140, 80), p(240, 130), p(360, 110)]];
  const image = inkPicture(400, 260, [
    { cubics: gentle, width: 4 },
    { cubics: moved(gentle, 0, 12), width: 4 },
  ]);
  const run = settle({ cubics: moved(gentle, 0, 5), closed: false }, image, on);
  expect(furthest(run.cubics, gentle)).toBeLessThan(1);
});

test('with no ink beneath nothing moves', () => {
  const image = inkPicture(400, 260, [{ cubics: moved(wave, 0, 60), width: 4 }]);
  const run = { cubics: wave, closed: false };
  expect(settle(run, image, on)).toEqual(run);
});

test('a closed line goes round; its corner stays one, and comes to where the ink turns', () => {
  const drop: Cubic[] = [
    [p(200, 40), p(300, 120), p(300, 220), p(200, 220)],
    [p(200, 220), p(100, 220), p(100, 120), p(200, 40)],
  ];
  const image = inkPicture(400, 260, [{ cubics: drop, width: 4 }]);
  const { cubics, closed } = settle({ cubics: moved(drop, -4, 3), closed: true }, image, on);
  expect(closed).toBe(true);
  expect(cubics[1][3]).toEqual(cubics[0][0]);
  expect(Math.hypot(cubics[0][0].x - 200, cubics[0][0].y - 40)).toBeLessThan(2.5);
  expect(furthest(cubics, drop)).toBeLessThan(2.5);
});

test('straight segments stay straight, and an end comes to its ink’s', () => {
  const straight: Cubic[] = [[p(60, 60), p(60, 60), p(300, 180), p(300, 180)]];
  const image = inkPicture(400, 260, [{ cubics: straight, width: 6 }]);
  const longer: Cubic[] = [[p(56, 62), p(56, 62), p(306, 187), p(306, 187)]];
  const [c] = settle({ cubics: longer, closed: false }, image, on).cubics;
  expect(c[1]).toEqual(c[0]);
  expect(c[2]).toEqual(c[3]);
  expect(Math.hypot(c[0].x - 60, c[0].y - 60)).toBeLessThan(1.5);
  expect(Math.hypot(c[3].x - 300, c[3].y - 180)).toBeLessThan(1.5);
});

test('an edge draws a line to it as well', () => {
  const image = inkPicture(300, 200, [{ cubics: [[p(-80, 240), p(100, 240), p(200, 240), p(400, 240)]], width: 200 }]);
  const line: Cubic[] = [[p(30, 146), p(100, 144), p(200, 147), p(270, 145)]];
  const { cubics } = settle({ cubics: line, closed: false }, image, { reach: 10, target: 'edge' });
  const box = cubicBounds(cubics[0]);
  expect(Math.abs(box.minY - 140)).toBeLessThan(0.5);
  expect(Math.abs(box.maxY - 140)).toBeLessThan(0.5);
});

test('bad input is refused', () => {
  const image = inkPicture(40, 40, []);
  expect(() => settle({ cubics: [], closed: false }, image, on)).toThrow(RangeError);
  expect(() => settle({ cubics: wave, closed: false }, image, { reach: -1, target: 'ink' })).toThrow(RangeError);
});

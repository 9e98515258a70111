import { coverage, type Cubic, type Point } from '@/core';
import { inkPicture } from '../test/inkPicture';
import { inkWithRadius } from '../assist/inkRadius';
import { CoverCount } from './coverCount';
import { patchesOf } from './coverage';

const p = (x: number, y: number): Point => ({ x, y });
const level = (y: number): Cubic[] => [[p(30, y), p(100, y), p(200, y), p(270, y)]];
const run = (cubics: Cubic[]) => ({ cubics, closed: false });
const image = inkPicture(300, 200, [
  { cubics: level(40), width: 4 },
  { cubics: level(100), width: 14 },
  { cubics: level(160), width: 4 },
]);

test('nothing traced, all traced, and what is between', () => {
  expect(coverage([], image, { reach: 4 }).covered).toBe(0);
  expect(
    coverage(
      [40, 100, 160].map((y) => run(level(y))),
      image,
      { reach: 4 },
    ).covered,
  ).toBeGreaterThan(0.99);
  // Of 22 px of stroke, 4 are traced.
  expect(coverage([run(level(40))], image, { reach: 4 }).covered).toBeCloseTo(4 / 22, 1);
});

test('a wide stroke counts as a whole, and does not take its neighbour with it', () => {
  const { untraced } = coverage([run(level(100))], image, { reach: 4 });
  const dark = (y: number): number => untraced.data.subarray(y * 300, (y + 1) * 300).filter((v) => v === 0).length;
  expect(dark(94)).toBe(0);
  expect(dark(100)).toBe(0);
  expect(dark(40)).toBeGreaterThan(200);
});

test('patches lead from the largest on; a box has its own share', () => {
  const { untraced } = coverage([run(level(100)), run([[p(30, 40), p(60, 40), p(100, 40), p(150, 40)]])], image, {
    reach: 4,
  });
  const patches = patchesOf(untraced, 40);
  expect(patches).toHaveLength(2);
  expect(patches[0].box.minY).toBeGreaterThan(150);
  expect(patches[1].box.minX).toBeGreaterThan(148);
});

test('line by line: boxes have shares of their own, and a line that moves lets go of what it had', () => {
  const boxes = [
    { minX: 0, minY: 80, maxX: 300, maxY: 120 },
    { minX: 0, minY: 150, maxX: 300, maxY: 170 },
    { minX: 0, minY: 0, maxX: 300, maxY: 20 },
  ];
  const count = new CoverCount(inkWithRadius(image), 4, boxes);
  count.set('wide', [run(level(100))]);
  count.set('over', [run(level(101))]);
  expect(count.coveredInBoxes).toEqual([1, 0, null]);
  count.set('wide', [run(level(160))]);
  expect(count.coveredInBoxes[0]).toBe(1);
  expect(count.coveredInBoxes[1]).toBeGreaterThan(0.99);
  count.set('over', []);
  expect(count.coveredInBoxes[0]).toBe(0);
  const moved = coverage([run(level(160))], image, { reach: 4 });
  expect(count.covered).toBe(moved.covered);
  expect(count.untraced().data).toEqual(moved.untraced.data);
  count.set('wide', []);
  expect(count.covered).toBe(0);
});

test('without ink all is covered; bad input is refused', () => {
  expect(coverage([], inkPicture(50, 50, []), { reach: 3 }).covered).toBe(1);
  expect(() => coverage([], image, { reach: 0 })).toThrow(RangeError);
  expect(() => coverage([{ cubics: [], closed: false }], image, { reach: 2 })).toThrow(RangeError);
});

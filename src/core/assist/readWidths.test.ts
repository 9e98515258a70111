import { readWidths, type Cubic, type GrayImage, type Point } from '@/core';
import { blurred } from '../raster/blur';
import { seeded } from '../seeded';
import { inkPicture } from '../test/inkPicture';
import { widthProfile } from '../ink/widths';

const p = (x: number, y: number): Point => ({ x, y });
const bow: Cubic[] = [
  [p(40, 200), p(140, 60), p(260, 60), p(360, 180)],
  [p(360, 180), p(440, 276), p(500, 300), p(580, 120)],
];
const run = { cubics: bow, closed: false };
const profiles: Record<string, (at: number) => number> = {
  'even, thin': () => 2,
  'even, wide': () => 14,
  belly: (at) => 2 + 12 * Math.sin(Math.PI * at) ** 2,
  'taper in': (at) => 2 + 10 * at,
  waves: (at) => 6 + 3 * Math.sin(at * 14),
};

/** Mean and 95th percentile of how far a read width lies from the true one, px; the ends' round caps aside. */
function errors(image: GrayImage, width: (at: number) => number, of = run): { mean: number; p95: number } {
  const profile = widthProfile(readWidths(of, image, { reach: 10 }));
  const off = Array.from({ length: 181 }, (_, i) => {
    const at = 0.05 + i / 200;
    const { left, right } = profile.at(at);
    return Math.abs(left + right - width(at));
  }).sort((a, b) => a - b);
  return { mean: off.reduce((a, b) => a + b, 0) / off.length, p95: off[Math.floor(0.95 * off.length)] };
}

test.each(Object.keys(profiles))('a stroke is read as wide as it was drawn: %s', (name) => {
  const width = profiles[name];
  const e = errors(inkPicture(620, 360, [{ cubics: bow, width }]), width);
  expect(e.mean).toBeLessThan(0.3);
  expect(e.p95).toBeLessThan(0.8);
});

test('also in grainy, softly scanned pictures, and where another stroke crosses', () => {
  const random = seeded(5);
  const crossing: Cubic[] = [[p(250, 20), p(255, 120), p(270, 200), p(290, 340)]];
  for (const name of ['belly', 'waves']) {
    const image = inkPicture(620, 360, [
      { cubics: bow, width: profiles[name] },
      { cubics: crossing, width: 5 },
    ]);
    const data = image.data.map((v) => Math.max(0, Math.min(255, v + 14 * (random() - 0.5))));
    const e = errors({ ...image, data }, profiles[name]);
    expect(e.mean).toBeLessThan(0.3);
    expect(e.p95).toBeLessThan(0.8);
  }
});

test.each([0.7, 1, 1.2])('thin strokes that were blurred are read as wide as they were drawn: by %s px', (blur) => {
  for (const width of [2, 2.5, 3, 4]) {
    const image = blurred(inkPicture(620, 360, [{ cubics: bow, width }]), blur);
    const e = errors(image, () => width);
    expect(e.mean).toBeLessThan(0.3);
    expect(e.p95).toBeLessThan(0.4);
  }
});

test('also where they are grainy besides, and other ink lies beside them', () => {
  const random = seeded(8);
  const beside: Cubic[] = [[p(40, 214), p(140, 74), p(260, 74), p(360, 194)]];
  const drawn = inkPicture(620, 360, [
    { cubics: bow, width: 3 },
    { cubics: beside, width: 5 },
  ]);
  const soft = blurred(drawn, 1);
  const data = soft.data.map((v) => Math.max(0, Math.min(255, v + 20 * (random() - 0.5))));
  const e = errors({ ...soft, data }, () => 3);
  expect(e.mean).toBeLessThan(0.3);
  expect(e.p95).toBeLessThan(0.6);
});

test('a stroke’s round ends are not taken for a taper', () => {
  const level: Cubic[] = [[p(40, 100), p(200, 100), p(300, 100), p(460, 100)]];
  const marks = readWidths({ cubics: level, closed: false }, inkPicture(500, 200, [{ cubics: level, width: 9 }]), {
    reach: 8,
  });
  for (const m of marks) expect(m.left + m.right).toBeCloseTo(9, 0);
});

test('to each side of a line that lies beside the middle, the left of its way first', () => {
  const level: Cubic[] = [[p(40, 100), p(200, 100), p(300, 100), p(460, 100)]];
  const image = inkPicture(500, 200, [{ cubics: level, width: 10 }]);
  // Two px below the middle: y points down, the way is to the right, so that more of the ink is on its left.
  const beside: Cubic[] = [level[0].map((q) => p(q.x, q.y + 2)) as Cubic];
  const { left, right } = widthProfile(readWidths({ cubics: beside, closed: false }, image, { reach: 8 })).at(0.5);
  expect(left).toBeCloseTo(7, 0);
  expect(right).toBeCloseTo(3, 0);
});

test('few marks, which rise from 0 to 1; none without ink; bad input is refused', () => {
  const image = inkPicture(620, 360, [{ cubics: bow, width: profiles.belly }]);
  const marks = readWidths(run, image, { reach: 10 });
  expect(marks.length).toBeLessThan(40);
  expect([marks[0].at, marks.at(-1)!.at]).toEqual([0, 1]);
  expect(marks.every((m, i) => i === 0 || m.at > marks[i - 1].at)).toBe(true);
  expect(readWidths(run, inkPicture(620, 360, []), { reach: 10 })).toEqual([]);
  expect(() => readWidths(run, image, { reach: NaN })).toThrow(RangeError);
  expect(() => readWidths({ cubics: [], closed: false }, image, { reach: 4 })).toThrow(RangeError);
});

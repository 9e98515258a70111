import { distanceFromInk, fitCurve, type Cubic, type Point } from '@/core';
import { derivative, evaluate } from '../geometry/cubic';
import { inkPicture } from '../test/inkPicture';

const p = (x: number, y: number): Point => ({ x, y });
const curve: Cubic[] = [[p(40, 60), p(150, 20), p(250, 200), p(360, 150)]];
const other: Cubic[] = [[p(60, 300), p(100, 180), p(320, 380), p(350, 240)]];
const across: Cubic[] = [[p(200, 20), p(190, 120), p(230, 260), p(210, 380)]];

/** The curve at a distance from another, to the right of its way. */
function aside(cubics: readonly Cubic[], by: number): Cubic[] {
  const points = cubics.flatMap((c) =>
    Array.from({ length: 201 }, (_, i) => {
      const [at, d] = [evaluate(c, i / 200), derivative(c, i / 200)];
      const l = Math.hypot(d.x, d.y);
      return p(at.x - (d.y / l) * by, at.y + (d.x / l) * by);
    }),
  );
  return fitCurve(points, { tolerance: 0.05 });
}

const measure = (cubics: Cubic[], image: ReturnType<typeof inkPicture>) =>
  distanceFromInk({ cubics, closed: false }, image, { reach: 12, target: 'ink' });

test.each([2, 3, 6, 10, 14])('the truth within a quarter px, of strokes %d px wide', (width) => {
  const image = inkPicture(400, 400, [
    { cubics: curve, width },
    { cubics: other, width },
  ]);
  for (const by of [0, 0.7, -2, 4, -8]) {
    const { samples, mean } = measure(aside(curve, by), image);
    const known = samples.filter((s) => s.distance !== null);
    expect(known.length).toBe(samples.length);
    expect(mean).toBeGreaterThan(Math.abs(by) - 0.1);
    for (const s of known) expect(Math.abs(s.distance! - Math.abs(by))).toBeLessThan(0.25);
  }
});

test('where strokes cross, the one that the line follows is measured', () => {
  const image = inkPicture(
    400,
    400,
    [curve, other, across].map((cubics) => ({ cubics, width: 6 })),
  );
  for (const own of [curve, other, across]) {
    const { samples } = measure(aside(own, 3), image);
    const off = samples.map((s) => Math.abs(s.distance! - 3)).sort((a, b) => a - b);
    expect(off[Math.floor(0.95 * off.length)]).toBeLessThan(0.25);
    expect(off.at(-1)!).toBeLessThan(1.2);
  }
});

test('a line with no ink beneath has no figures, one that leaves its ink has them for a part', () => {
  const image = inkPicture(400, 400, [{ cubics: curve, width: 5 }]);
  const none = measure(other, image);
  expect(none).toMatchObject({ mean: 0, p95: 0, max: 0 });
  expect(none.samples.every((s) => s.distance === null)).toBe(true);
  const onward: Cubic[] = [...curve, [p(360, 150), p(370, 190), p(380, 300), p(390, 390)]];
  const { samples } = measure(onward, image);
  const known = samples.filter((s) => s.distance !== null).length;
  expect(known).toBeGreaterThan(0.5 * samples.length);
  expect(samples.filter((s) => s.at > 0.8).every((s) => s.distance === null)).toBe(true);
});

test('of an edge the distance from where the tone changes', () => {
  const image = inkPicture(300, 200, [{ cubics: [[p(-80, 240), p(100, 240), p(200, 240), p(400, 240)]], width: 200 }]);
  // The shape's upper rim is level, at y 140.
  for (const by of [0, 3, -6]) {
    const run = {
      cubics: [[p(30, 140 + by), p(100, 140 + by), p(200, 140 + by), p(270, 140 + by)] as Cubic],
      closed: false,
    };
    const { samples } = distanceFromInk(run, image, { reach: 10, target: 'edge' });
    for (const s of samples) expect(Math.abs(s.distance! - Math.abs(by))).toBeLessThan(0.3);
  }
});

test('shares run from 0 to 1; bad input is refused', () => {
  const image = inkPicture(100, 100, [{ cubics: [[p(10, 10), p(30, 30), p(60, 60), p(90, 90)]], width: 4 }]);
  const run = { cubics: [[p(10, 12), p(30, 32), p(60, 62), p(90, 92)] as Cubic], closed: false };
  const { samples } = measure(run.cubics, image);
  expect(samples[0].at).toBe(0);
  expect(samples.at(-1)!.at).toBeCloseTo(1, 6);
  for (const [r, o] of [
    [
      { cubics: [], closed: false },
      { reach: 5, target: 'ink' as const },
    ],
    [
      { cubics: [[p(NaN, 0), p(0, 0), p(0, 0), p(0, 0)] as Cubic], closed: false },
      { reach: 5, target: 'ink' as const },
    ],
    [run, { reach: 0, target: 'ink' as const }],
    [run, { reach: NaN, target: 'ink' as const }],
    [run, { reach: 5, target: 'paper' as 'ink' }],
  ] as const)
    expect(() => distanceFromInk(r as typeof run, image, o)).toThrow(RangeError);
});

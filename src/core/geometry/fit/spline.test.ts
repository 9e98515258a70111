import { stroke } from '@/core/test/strokes';
import { xAt, yAt } from './freeCubic';
import { cutsFor } from './pieces';
import { relax } from './relax';
import { noiseOf, samplesOf } from './samples';
import { bulges, controlsOf, endNode, misfitAt, segmentsOf, splineFrom, splitSegment, type Spline } from './spline';
import { standardFor } from './standard';

function begun(seed: number): { sp: Spline; s: ReturnType<typeof samplesOf> } {
  const s = samplesOf(stroke('smooth', seed).points, false);
  const cuts = cutsFor(s, 0, s.n - 1, standardFor(2, noiseOf(s)));
  const corner = cuts.map((_, i) => i === 0 || i === cuts.length - 1);
  return { sp: splineFrom(s, cuts, corner, false), s };
}
const totalOf = (sp: Spline, s: ReturnType<typeof samplesOf>): number =>
  Array.from(
    { length: segmentsOf(sp) },
    (_, k) => misfitAt(sp, s, k, 2).rms ** 2 * (sp.cuts[k + 1] - sp.cuts[k]),
  ).reduce((a, b) => a + b, 0);

test.each([1, 2, 3, 4, 5, 6])(
  'relaxing brings the chain nearer and keeps joints smooth and cuts in order (stroke %i)',
  (seed) => {
    const { sp, s } = begun(seed);
    relax(sp, s, 0);
    const before = totalOf(sp, s);
    relax(sp, s, 12);
    expect(totalOf(sp, s)).toBeLessThanOrEqual(before * 1.0001);
    expect(Math.sqrt(totalOf(sp, s) / s.n)).toBeLessThan(0.9);
    sp.cuts.slice(1).forEach((cut, k) => expect(cut).toBeGreaterThan(sp.cuts[k]));
    for (let node = 1; node < segmentsOf(sp); node++) expect(sp.wayIn[node]).toBe(sp.wayOut[node]);
    expect([...sp.ts].every((t) => t >= 0 && t <= 1)).toBe(true);
    expect([...sp.lengthIn, ...sp.lengthOut].every((l) => Number.isFinite(l) && l >= 0)).toBe(true);
  },
);

test('cutting a segment leaves the curve as it was', () => {
  const { sp, s } = begun(3);
  relax(sp, s, 8);
  const before = Array.from({ length: segmentsOf(sp) }, (_, k) => controlsOf(sp, k));
  const count = segmentsOf(sp);
  splitSegment(sp, s, 0);
  expect(segmentsOf(sp)).toBe(count + 1);
  expect(endNode(sp, 0)).toBe(1);
  const [left, right] = [controlsOf(sp, 0), controlsOf(sp, 1)];
  expect([left[0], left[1], right[6], right[7]]).toEqual([
    expect.closeTo(before[0][0]),
    expect.closeTo(before[0][1]),
    expect.closeTo(before[0][6]),
    expect.closeTo(before[0][7]),
  ]);
  // Where the halves meet lies on the curve, and so do places within each.
  for (const [c, t] of [
    [left, 0.5],
    [left, 1],
    [right, 0.5],
  ] as const) {
    const [x, y] = [xAt(c, t), yAt(c, t)];
    const distances = Array.from({ length: 2001 }, (_, i) =>
      Math.hypot(xAt(before[0], i / 2000) - x, yAt(before[0], i / 2000) - y),
    );
    expect(Math.min(...distances)).toBeLessThan(0.2);
  }
});

test('a curve that swings out between two points is told', () => {
  const { sp, s } = begun(2);
  relax(sp, s, 8);
  expect(bulges(sp, s, 0, 2)).toBe(false);
  sp.lengthOut[0] *= 8;
  sp.wayOut[0] += 1.2;
  expect(bulges(sp, s, 0, 2)).toBe(true);
});

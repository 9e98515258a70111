import fc from 'fast-check';
import { seeded } from '@/core/seeded';
import { walk } from '@/core/test/strokes';
import type { Cubic } from '../cubic';
import { blocksOf } from './blocks';
import { fitFree, improveFree, misfitOf, powersOf, stepToFoot, xAt, yAt } from './freeCubic';
import { Normal } from './normal';
import { cuspFor, cutsFor } from './pieces';
import { noiseOf, samplesOf, turnedTo } from './samples';
import { Skyline } from './skyline';
import { holds, standardFor } from './standard';

const jitter = (sigma: number, seed: number) => {
  const random = seeded(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  return (p: { x: number; y: number }) => ({ x: p.x + sigma * normal(), y: p.y + sigma * normal() });
};

/** Solves by elimination with pivoting: slow and plain. */
function solved(a: number[][], b: number[]): number[] {
  const m = a.map((row, i) => [...row, b[i]]);
  const n = b.length;
  for (let k = 0; k < n; k++) {
    const pivot = m.slice(k).reduce((best, row, i) => (Math.abs(row[k]) > Math.abs(m[best][k]) ? i + k : best), k);
    [m[k], m[pivot]] = [m[pivot], m[k]];
    for (let i = 0; i < n; i++) {
      if (i === k) continue;
      const f = m[i][k] / m[k][k];
      for (let j = k; j <= n; j++) m[i][j] -= f * m[k][j];
    }
  }
  return m.map((row, i) => row[n] / row[i]);
}

test('a skyline system is solved as elimination solves it, whatever its envelope', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 1e6 }), (n, seed) => {
      const random = seeded(seed);
      const first = Int32Array.from({ length: n }, (_, i) => Math.floor(random() * (i + 1)));
      const system = new Skyline(first);
      const dense = Array.from({ length: n }, () => new Array<number>(n).fill(0));
      for (let i = 0; i < n; i++) {
        for (let j = first[i]; j <= i; j++) {
          const v = i === j ? n + random() : random() - 0.5;
          system.add(i, j, v);
          dense[i][j] = dense[j][i] = v;
        }
      }
      const b = Float64Array.from({ length: n }, () => random() * 10 - 5);
      const wanted = solved(dense, [...b]);
      expect(system.solve(b)).toBe(true);
      wanted.forEach((v, i) => expect(b[i]).toBeCloseTo(v, 8));
    }),
  );
});

test('eight unknowns are solved as elimination solves them', () => {
  const random = seeded(31);
  const rows = Array.from({ length: 30 }, () => Array.from({ length: 9 }, () => random() * 4 - 2));
  const normal = new Normal();
  for (const [a, b, c, d, e, f, g, h, gap] of rows) normal.add(a, b, c, d, e, f, g, h, gap);
  const column = (i: number) => rows.map((r) => r[i]);
  const product = (i: number, j: number): number => column(i).reduce((sum, v, k) => sum + v * rows[k][j], 0);
  const eight = [0, 1, 2, 3, 4, 5, 6, 7];
  const wanted = solved(
    eight.map((i) => eight.map((j) => product(i, j))),
    eight.map((i) => product(i, 8)),
  );
  normal.solve();
  wanted.forEach((v, i) => expect(normal.right[i]).toBeCloseTo(v, 8));
});

test('a step to the foot never leads away, however sharp the curve turns', () => {
  const number = fc.double({ min: -100, max: 100, noNaN: true });
  fc.assert(
    fc.property(
      fc.array(number, { minLength: 8, maxLength: 8 }),
      number,
      number,
      fc.double({ min: 0, max: 1, noNaN: true }),
      (c, x, y, t) => {
        const controls = Float64Array.from(c);
        const far = (at: number): number => Math.hypot(xAt(controls, at) - x, yAt(controls, at) - y);
        const next = stepToFoot(powersOf(controls), x, y, t, 0, 1);
        expect(next).toBeGreaterThanOrEqual(0);
        expect(next).toBeLessThanOrEqual(1);
        expect(far(next)).toBeLessThanOrEqual(far(t) + 1e-6);
      },
    ),
    { numRuns: 300 },
  );
});

test('blocks are means of neighbours; bounds stay as they are, and every point is in one block', () => {
  const points = Array.from({ length: 301 }, (_, i) => ({ x: i * 0.5, y: Math.sin(i / 40) * 60 }));
  const s = samplesOf(points, false);
  const { samples, starts, bounds } = blocksOf(s, [0, 140, 300], 0.5, 2);
  expect(samples.n).toBeLessThan(120);
  expect([starts[0], starts.at(-1)]).toEqual([0, 301]);
  bounds.forEach((b, k) => {
    const i = [0, 140, 300][k];
    expect([samples.x[b], samples.y[b], starts[b + 1] - starts[b]]).toEqual([points[i].x, points[i].y, 1]);
  });
  for (let b = 0; b < samples.n; b++) {
    const own = points.slice(starts[b], starts[b + 1]);
    expect(own.length).toBeGreaterThan(0);
    expect(samples.x[b]).toBeCloseTo(own.reduce((sum, p) => sum + p.x, 0) / own.length, 9);
  }
  // A closed stroke without corners begins with its first point; few points stay as they are.
  expect(blocksOf(s, [0, 301], 0.5, 2).starts.at(-1)).toBe(301);
  expect(blocksOf(samplesOf(points.slice(0, 20), false), [0, 19], 0.5, 2).samples.n).toBe(20);
});

test('points that run into a tip and back are one cubic with a cusp', () => {
  const cusp: Cubic = [
    { x: 0, y: 0 },
    { x: 150, y: 150 },
    { x: 0, y: 150 },
    { x: 150, y: 0 },
  ];
  const s = samplesOf(walk([cusp], 2).map(jitter(0.5, 5)), false);
  const tip = [...s.y.keys()].reduce((a, i) => (s.y[i] > s.y[a] ? i : a), 0);
  const ts = new Float64Array(s.n);
  const c = cuspFor(s, tip, ts, standardFor(2, noiseOf(s)))!;
  expect(c).not.toBeNull();
  expect(misfitOf(c, s, 0, s.n - 1, ts, 2).rms).toBeLessThan(0.6);
});

test('a system that is not positive definite is told', () => {
  const system = new Skyline(Int32Array.from([0, 0]));
  system.add(0, 0, 1);
  system.add(1, 0, 2);
  system.add(1, 1, 1);
  expect(system.solve(new Float64Array(2))).toBe(false);
});

const cubic: Cubic = [
  { x: 20, y: 80 },
  { x: 160, y: -60 },
  { x: 150, y: 220 },
  { x: 320, y: 90 },
];

test.each([0.1, 0.6, 1.5])('the noise of points about a curve is told: %f px', (sigma) => {
  const points = walk([cubic], 1).map(jitter(sigma, 7));
  expect(noiseOf(samplesOf(points, false)) / sigma).toBeGreaterThan(0.8);
  expect(noiseOf(samplesOf(points, false)) / sigma).toBeLessThan(1.2);
});

test('points without repeats; few are eked out; a closed stroke can begin elsewhere', () => {
  const p = (x: number, y: number) => ({ x, y });
  const kept = samplesOf([...walk([cubic], 5), ...walk([cubic], 5).slice(-1)], false);
  expect(kept.n).toBe(walk([cubic], 5).length);
  const few = samplesOf([p(0, 0), p(0, 0), p(10, 0), p(10, 10)], false);
  expect(few.n).toBeGreaterThanOrEqual(8);
  expect([few.x[0], few.y[few.n - 1]]).toEqual([0, 10]);
  for (let i = 0; i < few.n; i++) expect(few.y[i] === 0 || few.x[i] === 10).toBe(true);
  const ring = samplesOf(Array.from({ length: 12 }, (_, i) => p(i, i * i)).concat(p(0, 0)), true);
  expect(ring.n).toBe(12);
  expect([...turnedTo(ring, 5).x]).toEqual([5, 6, 7, 8, 9, 10, 11, 0, 1, 2, 3, 4]);
});

test('the free fit finds a cubic again from its own points, loops included', () => {
  const loop: Cubic = [
    { x: 0, y: 0 },
    { x: 300, y: 180 },
    { x: -120, y: 180 },
    { x: 180, y: 0 },
  ];
  for (const truth of [cubic, loop]) {
    const s = samplesOf(walk([truth], 2), false);
    const ts = new Float64Array(s.n);
    const first = fitFree(s, 0, s.n - 1, ts, 4);
    const c = improveFree(first, s, 0, s.n - 1, ts, 20);
    expect(misfitOf(c, s, 0, s.n - 1, ts, 1).rms).toBeLessThan(0.02);
  }
});

test('what holds is judged by tolerance and noise: a lone stray passes, many do not', () => {
  const noisy = standardFor(2, 0.6);
  expect(holds({ rms: 0.62, max: 2.4, over: 1 }, 200, noisy)).toBe(true);
  expect(holds({ rms: 0.62, max: 3.2, over: 1 }, 200, noisy)).toBe(false);
  expect(holds({ rms: 0.62, max: 2.4, over: 5 }, 200, noisy)).toBe(false);
  expect(holds({ rms: 1.2, max: 1.9, over: 0 }, 200, noisy)).toBe(false);
  // Without noise the shape may use up the tolerance.
  expect(holds({ rms: 0.85, max: 1.9, over: 0 }, 200, standardFor(2, 0))).toBe(true);
});

test('a stretch is cut as little as can be: one cubic is not cut, two that differ are cut where they meet', () => {
  const one = samplesOf(walk([cubic], 2), false);
  expect(cutsFor(one, 0, one.n - 1, standardFor(1, 0))).toEqual([0, one.n - 1]);
  const wave: Cubic[] = [0, 1, 2].map((k): Cubic => {
    const x = 200 * k;
    return [
      { x, y: 0 },
      { x: x + 60, y: k % 2 ? 160 : -160 },
      { x: x + 140, y: k % 2 ? 160 : -160 },
      { x: x + 200, y: 0 },
    ];
  });
  const many = samplesOf(walk(wave, 2), false);
  const cuts = cutsFor(many, 0, many.n - 1, standardFor(1, 0));
  expect(cuts.length - 1).toBeLessThanOrEqual(3);
  expect(cuts.length - 1).toBeGreaterThan(1);
  expect(cuts).toEqual([...cuts].sort((a, b) => a - b));
});

import type { Cubic, Node, Point, Run } from '@/core';
import { combOf, curvatureAt, jointsOf, stepOf } from './flow';

const p = (x: number, y: number): Point => ({ x, y });
const K = 0.5522847498;
/** A quarter of a circle of radius 100 that turns right as y points down. */
const quarter: Cubic = [p(0, -100), p(100 * K, -100), p(100, -100 * K), p(100, 0)];

test('the curvature of an arc is that of its circle, and turns its sign with the way', () => {
  for (const t of [0, 0.3, 0.5, 0.9]) expect(curvatureAt(quarter, t)).toBeCloseTo(0.01, 3);
  const back: Cubic = [quarter[3], quarter[2], quarter[1], quarter[0]];
  expect(curvatureAt(back, 0.5)).toBeCloseTo(-0.01, 3);
  expect(curvatureAt([p(0, 0), p(0, 0), p(9, 9), p(9, 9)], 0.5)).toBeCloseTo(0, 9);
});

const node = (at: Point, into: Point | null, out: Point | null): Node => ({ point: at, in: into, out, kind: 'smooth' });
const run: Run = {
  closed: false,
  nodes: [
    node(p(0, -100), null, p(100 * K, 0)),
    node(p(100, 0), p(0, -100 * K), p(0, 30)),
    node(p(100, 100), p(0, -30), p(20, 20)),
    node(p(200, 100), p(-20, 0), null),
  ],
};

test('joints tell turns and steps of the bend', () => {
  const [first, second] = jointsOf(run);
  expect(first.turn).toBeCloseTo(0, 3);
  expect(first.before).toBeCloseTo(0.01, 3);
  expect(first.after).toBeCloseTo(0, 6);
  expect(stepOf(first)).toBeCloseTo(1, 2);
  expect(second.turn).toBeCloseTo(45, 3);
  expect(stepOf({ node: 0, turn: 0, before: 1e-5, after: -1e-5 })).toBe(0);
  expect(stepOf({ node: 0, turn: 0, before: 0.01, after: 0.008 })).toBeCloseTo(0.2, 6);
});

test('the comb has its teeth on the line, at right angles to it', () => {
  const [teeth] = combOf(run, 8);
  expect(teeth).toHaveLength(9);
  for (const { at, normal, curvature } of teeth) {
    expect(Math.hypot(at.x, at.y)).toBeCloseTo(100, 0);
    expect(Math.abs((at.x * normal.y - at.y * normal.x) / 100)).toBeLessThan(0.02);
    expect(curvature).toBeCloseTo(0.01, 3);
  }
});

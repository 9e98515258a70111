import { linesOf } from '../drawing/items';
import { applyChange, cubicAt, type Drawing, type Node } from '../index';
import { cornerAt, cubicsOf } from '../drawing/run';
import { firstStyle } from '../drawing/schema';
import { cross, distance } from '../geometry/point';
import { wanderingDrawing } from '../test/drawings';
import { bendSegment } from './bend';

function drawingOf(nodes: Node[], closed = false): Drawing {
  const d = wanderingDrawing(0, 1, 1);
  const line = { id: 'a', style: firstStyle, runs: [{ closed, nodes }] };
  return { ...d, sheets: d.sheets.map((s, i) => (i === 0 ? { ...s, items: [line] } : s)) };
}
const bend = (d: Drawing, segment: number, t: number, to: { x: number; y: number }, even = false) =>
  linesOf(applyChange(d, { id: 'c', ...bendSegment(d, { line: 'a', run: 0, segment }, t, to, even) }).sheets[0])[0]
    .runs[0];

const square = [0, 100].flatMap((y) => (y === 0 ? [0, 100] : [100, 0]).map((x) => cornerAt({ x, y })));

describe('bending a segment', () => {
  it('takes a straight one through the pointer and leaves the others straight', () => {
    const run = bend(drawingOf(square, true), 3, 0.3, { x: -30, y: 60 });
    expect(distance(cubicAt(cubicsOf(run)[3], 0.3), { x: -30, y: 60 })).toBeLessThan(1e-6);
    expect(run.nodes[0]).toMatchObject({ out: null });
    expect(run.nodes.map((n) => n.kind)).toEqual(['corner', 'corner', 'corner', 'corner']);
  });

  it('turns the neighbours with it where they are smooth', () => {
    const middle: Node = { point: { x: 100, y: 0 }, in: { x: -30, y: 0 }, out: { x: 30, y: 0 }, kind: 'smooth' };
    const run = bend(drawingOf([cornerAt({ x: 0, y: 0 }), middle, cornerAt({ x: 200, y: 0 })]), 1, 0.5, {
      x: 150,
      y: 60,
    });
    const { in: into, out } = run.nodes[1];
    expect(cross(into!, out!)).toBeCloseTo(0, 6);
    expect(into!.x * out!.x + into!.y * out!.y).toBeLessThan(0);
    expect(Math.hypot(into!.x, into!.y)).toBeCloseTo(30, 6);
    expect(out!.y).toBeGreaterThan(5);
  });

  it('evenly, both handles stand alike over the chord', () => {
    const run = bend(drawingOf([cornerAt({ x: 0, y: 0 }), cornerAt({ x: 100, y: 0 })]), 0, 0.3, { x: 30, y: 40 }, true);
    expect(run.nodes[0].out!.y).toBeCloseTo(run.nodes[1].in!.y, 9);
    expect(run.nodes[0].out!.x).toBeCloseTo(-run.nodes[1].in!.x, 9);
  });

  it('does nothing to a line that is gone', () => {
    expect(bendSegment(drawingOf(square), { line: 'b', run: 0, segment: 0 }, 0.5, { x: 0, y: 0 }).steps).toEqual([]);
  });
});

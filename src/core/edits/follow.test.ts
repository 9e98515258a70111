import { linesOf } from '../drawing/items';
import { applyChange, type Cubic, type Drawing, type Node } from '../index';
import { cornerAt } from '../drawing/run';
import { firstStyle } from '../drawing/schema';
import { wanderingDrawing } from '../test/drawings';
import { extendByCurves } from './follow';

const at = (x: number, y: number, rest: Partial<Node> = {}): Node => ({ ...cornerAt({ x, y }), ...rest });
const base = wanderingDrawing(0, 1, 1);
const drawingOf = (nodes: Node[]): Drawing => ({
  ...base,
  sheets: base.sheets.map((s, i) =>
    i === 0 ? { ...s, items: [{ id: 'a', style: firstStyle, runs: [{ closed: false, nodes }] }] } : s,
  ),
});
const curves = (...places: [number, number][]): Cubic[] =>
  places.slice(1).map(([x, y], i): Cubic => {
    const [u, v] = places[i];
    return [
      { x: u, y: v },
      { x: u + 10, y: v },
      { x: x - 10, y },
      { x, y },
    ];
  });
const after = (d: Drawing, cubics: Cubic[], atStart: boolean, closes: boolean) =>
  linesOf(
    applyChange(d, { id: 'c', ...extendByCurves(d, { line: 'a', run: 0, atStart }, cubics, closes, 'Follow') })
      .sheets[0],
  )[0].runs[0];

test('a line is drawn on by curves at either end, smoothly where it runs on', () => {
  const d = drawingOf([at(0, 0), at(50, 0, { in: { x: -20, y: 1 }, kind: 'smooth' })]);
  const on = after(d, curves([50, 0], [100, 20], [150, 0]), false, false);
  expect(on.nodes.map((n) => n.point.x)).toEqual([0, 50, 100, 150]);
  expect(on.nodes[1].kind).toBe('smooth');
  expect(on.nodes[1].out!.x * 1 + on.nodes[1].out!.y * 20).toBeCloseTo(0, 6);
  const before = after(d, curves([0, 0], [40, 60]), true, false);
  expect(before.nodes.map((n) => n.point.y)).toEqual([60, 0, 0]);
  expect(before.nodes[1]).toMatchObject({ kind: 'corner', in: { x: 10, y: 0 } });
});

test('curves that come back to the first node close the line', () => {
  const d = drawingOf([at(0, 0, { out: { x: 10, y: 0 } }), at(50, 0), at(50, 50)]);
  const ring = after(d, curves([50, 50], [20, 60], [0, 0]), false, true);
  expect(ring).toMatchObject({ closed: true, nodes: { length: 4 } });
  expect(ring.nodes[0].kind).toBe('smooth');
  expect([ring.nodes[0].in!.x, ring.nodes[0].out!.x]).toEqual([expect.closeTo(-10), expect.closeTo(10)]);
});

test('no curves, or a line that is gone, change nothing', () => {
  const d = drawingOf([at(0, 0), at(50, 0)]);
  expect(extendByCurves(d, { line: 'a', run: 0, atStart: false }, [], false, 'x').steps).toEqual([]);
  expect(extendByCurves(d, { line: 'b', run: 0, atStart: false }, curves([0, 0], [1, 1]), false, 'x').steps).toEqual(
    [],
  );
});

import { linesOf } from '../drawing/items';
import { applyChange, inverseOf, type Drawing, type Line, type Node, type Run } from '../index';
import { cornerAt, cubicsOf } from '../drawing/run';
import { firstStyle } from '../drawing/schema';
import { wanderingDrawing } from '../test/drawings';
import type { Edit } from '../change/edit';
import { extendEnd, joinEnds } from './join';
import { towards, type End } from '../drawing/end';

const at = (x: number, y: number, rest: Partial<Node> = {}): Node => ({ ...cornerAt({ x, y }), ...rest });
const line = (id: string, nodes: Node[], width = 2): Line => ({
  id,
  style: { ...firstStyle, width },
  runs: [{ closed: false, nodes }],
});

function drawingOf(...lines: Line[]): Drawing {
  const d = wanderingDrawing(0, 1, 1);
  return { ...d, sheets: d.sheets.map((s, i) => (i === 0 ? { ...s, items: lines } : s)) };
}
const after = (d: Drawing, e: Edit): Drawing => {
  const change = { id: 'c', ...e };
  const result = applyChange(d, change);
  expect(applyChange(result, inverseOf(change, 'u', 'Undo'))).toEqual(d);
  return result;
};
const firstLines = (d: Drawing): readonly Line[] => linesOf(d.sheets[0]);
const places = (r: Run): number[][] => r.nodes.map((n) => [n.point.x, n.point.y]);
const end = (of: string, atStart = false): End => ({ line: of, run: 0, atStart });

describe('joining ends', () => {
  const a = line('a', [at(0, 0), at(10, 0, { in: { x: -3, y: 1 } })], 5);
  const b = line('b', [at(30, 0, { out: { x: 4, y: 2 } }), at(40, 0)], 1);

  it.each([
    [
      false,
      true,
      [
        [0, 0],
        [10, 0],
        [30, 0],
        [40, 0],
      ],
    ],
    [
      false,
      false,
      [
        [0, 0],
        [10, 0],
        [40, 0],
        [30, 0],
      ],
    ],
    [
      true,
      true,
      [
        [40, 0],
        [30, 0],
        [0, 0],
        [10, 0],
      ],
    ],
    [
      true,
      false,
      [
        [30, 0],
        [40, 0],
        [0, 0],
        [10, 0],
      ],
    ],
  ])('takes any two ends (first at its start: %s, second: %s) by a straight segment', (first, second, wanted) => {
    const [joined, ...others] = firstLines(
      after(drawingOf(a, b), joinEnds(drawingOf(a, b), end('a', first), end('b', second))),
    );
    expect(others).toEqual([]);
    expect(joined.style.width).toBe(5);
    expect(places(joined.runs[0])).toEqual(wanted);
    // What was drawn before is drawn still, in either direction.
    const control = (r: Run): string[] =>
      cubicsOf(r).map((c) =>
        [...c]
          .map((p) => `${p.x},${p.y}`)
          .sort()
          .join(' '),
      );
    for (const old of [...control(a.runs[0]), ...control(b.runs[0])]) expect(control(joined.runs[0])).toContain(old);
  });

  it('makes one node of ends in the same place, smooth where the line runs on', () => {
    const d = drawingOf(
      line('a', [at(0, 0), at(10, 0, { in: { x: -4, y: 0 } })]),
      line('b', [at(10, 0, { out: { x: 6, y: 0 } }), at(20, 5)]),
      line('c', [at(20, 5, { out: { x: 0, y: 5 } }), at(20, 20)]),
    );
    const one = after(d, joinEnds(d, end('a'), end('b', true)));
    expect(firstLines(one)[0].runs[0].nodes[1]).toEqual(
      at(10, 0, { in: { x: -4, y: 0 }, out: { x: 6, y: 0 }, kind: 'smooth' }),
    );
    const two = after(one, joinEnds(one, end('a'), end('c', true)));
    expect(firstLines(two)[0].runs[0].nodes.map((n) => n.kind)).toEqual(['corner', 'smooth', 'corner', 'corner']);
  });

  it('closes a line whose own ends are joined, and leaves closed lines and single nodes alone', () => {
    const open = line('a', [at(0, 0), at(10, 0), at(10, 10), at(0, 0)]);
    const d = drawingOf(open, line('dot', [at(50, 50)]));
    const closed = after(d, joinEnds(d, end('a'), end('a', true)));
    expect(firstLines(closed)[0].runs[0]).toMatchObject({ closed: true, nodes: { length: 3 } });
    expect(joinEnds(closed, end('a'), end('dot')).steps).toEqual([]);
    expect(joinEnds(d, end('dot'), end('dot', true)).steps).toEqual([]);
    expect(joinEnds(d, end('a'), end('gone')).steps).toEqual([]);
  });

  it('can join by a curve that is drawn', () => {
    const d = drawingOf(a, b);
    const from = at(10, 0, { in: { x: -3, y: 1 }, out: { x: 5, y: -5 } });
    const to = at(30, 0, { in: { x: -5, y: -5 }, out: { x: 4, y: 2 } });
    const [joined] = firstLines(after(d, joinEnds(d, end('a'), end('b', true), { from, to })));
    expect(joined.runs[0].nodes.slice(1, 3)).toEqual([from, to]);
    // A line closed so keeps all its nodes.
    const self = after(d, joinEnds(d, end('b'), end('b', true), { from: at(40, 0, { out: { x: 1, y: 9 } }), to }));
    expect(firstLines(self)[1].runs[0]).toMatchObject({ closed: true, nodes: [to, { out: { x: 1, y: 9 } }] });
  });

  it('carries a line on from either end', () => {
    const d = drawingOf(a);
    const next = at(-10, 5, { in: { x: 1, y: 1 }, out: { x: -1, y: -1 } });
    const [longer] = firstLines(after(d, extendEnd(d, end('a', true), next)));
    // At its start the line runs the other way, and so do the node's handles.
    expect(longer.runs[0].nodes[0]).toMatchObject({ point: next.point, in: next.out, out: next.in });
    expect(towards(longer.runs[0], { atStart: true }).at(-1)).toEqual(next);
  });
});

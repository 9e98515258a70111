import { allLines } from '@/core/drawing/items';
import fc from 'fast-check';
import { addLine } from '@/core/edits/lines';
import { setPage } from '@/core/edits/page';
import { setSheet } from '@/core/edits/sheets';
import { firstStyle, type Line } from '@/core';
import { point } from '@/core/geometry/point';
import { shownDrawing } from '../state/store';
import { benchWith, Hand } from '../test/hand';
import { NodesTool } from './nodesTool';
import { PenTool } from './penTool';
import { stageTable } from '../stages/table';
import { tools, toolsOf } from './registry';
import { SelectTool } from './selectTool';

const pen = () => new Hand(benchWith(), (r) => new PenTool(r));
const corner = (x: number, y: number) => ({ point: point(x, y), in: null, out: null, kind: 'corner' as const });
const straight = (id: string, y: number): Line => ({
  id,
  style: firstStyle,
  runs: [{ closed: false, nodes: [corner(0, y), corner(100, y), corner(200, y)] }],
});

function withLines<T extends NodesTool | SelectTool>(make: ConstructorParameters<typeof Hand<T>>[1]): Hand<T> {
  const bench = benchWith();
  for (const [id, y] of [
    ['a', 0],
    ['b', 50],
    ['c', 100],
  ] as const) {
    bench.commit(addLine(bench.getState().drawing, bench.getState().sheet, straight(id, y)));
  }
  bench.setState({ undoable: [] });
  return new Hand(bench, make);
}

describe('pen', () => {
  const step = fc.record({
    x: fc.integer({ min: 0, max: 900 }),
    y: fc.integer({ min: 0, max: 600 }),
    dx: fc.integer({ min: -60, max: 60 }),
    dy: fc.integer({ min: -60, max: 60 }),
    alt: fc.boolean(),
    shift: fc.boolean(),
  });

  test('whatever is drawn, each press is one undo step, and undoing all of them leaves the page as it was', () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 14 }), (steps) => {
        const hand = pen();
        const start = hand.bench.getState().drawing;
        for (const { x, y, dx, dy, alt, shift } of steps) {
          const before = hand.bench.getState().undoable.length;
          hand.drag(point(x, y), point(x + dx, y + dy), { alt, shift });
          expect(hand.bench.getState().undoable.length - before).toBeLessThanOrEqual(1);
          expect(hand.bench.getState().preview).toBeNull();
        }
        hand.key('Enter');
        expect(hand.lines.every((l) => l.runs[0].nodes.length >= 2)).toBe(true);
        while (hand.bench.getState().undoable.length > 0) hand.bench.undo();
        expect(hand.bench.getState().drawing).toEqual(start);
      }),
      { numRuns: 60 },
    );
  });

  test('a line takes the style of its sheet, and never a fill', () => {
    const hand = pen();
    hand.click(point(10, 10));
    hand.click(point(90, 10));
    expect(hand.lines[0].style).toEqual({ ...firstStyle, fill: null });
  });

  test('closing with a drag shapes the last curve and keeps the first curve’s way out', () => {
    const hand = pen();
    hand.drag(point(100, 100), point(140, 100));
    hand.click(point(200, 200));
    hand.click(point(100, 250));
    hand.drag(point(100, 100), point(160, 100));
    const [first] = hand.lines[0].runs[0].nodes;
    expect(hand.lines[0].runs[0].closed).toBe(true);
    expect(first.in).toEqual(point(-60, -0));
    expect(first.out!.x).toBeCloseTo(40, 9);
  });

  test('the last node can be pulled for a new way out, or clicked to drop it', () => {
    const hand = pen();
    hand.click(point(0, 0));
    hand.drag(point(100, 0), point(130, 0));
    hand.drag(point(100, 0), point(100, 40));
    expect(hand.lines[0].runs[0].nodes[1]).toMatchObject({ in: point(-30, -0), out: point(0, 40), kind: 'corner' });
    hand.click(point(100, 0));
    expect(hand.lines[0].runs[0].nodes[1].out).toBeNull();
    expect(hand.lines[0].runs[0].nodes[1].in).not.toBeNull();
  });

  test('pointer and hints tell what a press would do', () => {
    const hand = pen();
    expect(hand.tool.pointer()).toBe('pen start');
    for (const p of [point(0, 0), point(100, 0), point(100, 100)]) hand.click(p);
    const told = (p: { x: number; y: number }) => (hand.hover(p), [hand.tool.pointer(), hand.tool.hints()[0].what]);
    expect(told(point(50, 50))).toEqual(['pen add', 'corner']);
    expect(told(point(2, 1))).toEqual(['pen close', 'close the line']);
    expect(told(point(99, 99))).toEqual(['pen drop', 'drop the outgoing handle']);
    const { drawing, sheet } = hand.bench.getState();
    hand.key('Escape');
    hand.bench.commit(setSheet(drawing, sheet, { locked: true }, 'Lock'));
    expect(hand.tool.pointer()).toBe('refuse');
    expect(hand.tool.hints()[0].keys).toBe('locked or hidden');
  });

  test('undo past the start of a line puts the pen down; the next press begins anew', () => {
    const hand = pen();
    hand.click(point(0, 0));
    hand.click(point(50, 0));
    hand.bench.undo();
    hand.bench.undo();
    expect(hand.lines).toEqual([]);
    hand.click(point(300, 300));
    hand.click(point(350, 300));
    expect(hand.lines).toHaveLength(1);
    expect(hand.lines[0].runs[0].nodes[0].point).toEqual(point(300, 300));
  });

  test('while reading, nothing is drawn', () => {
    const hand = pen();
    hand.bench.setState({ reading: true });
    hand.click(point(0, 0));
    expect(hand.lines).toEqual([]);
  });
});

describe('nodes', () => {
  const nodes = () => withLines((r) => new NodesTool(r));

  test('a box chooses nodes of the lines it reaches; a click on nothing lets go in two steps', () => {
    const hand = nodes();
    hand.drag(point(80, 30), point(220, 120));
    expect([...hand.bench.getState().nodes].sort()).toEqual(['b:0:1', 'b:0:2', 'c:0:1', 'c:0:2']);
    hand.click(point(500, 500));
    expect([hand.bench.getState().nodes.size, hand.bench.getState().lines.size]).toEqual([0, 2]);
    hand.click(point(500, 500));
    expect(hand.bench.getState().lines.size).toBe(0);
  });

  test('Shift adds a node and takes it away again', () => {
    const hand = nodes();
    hand.click(point(50, 0));
    hand.click(point(100, 0));
    hand.click(point(200, 0), { shift: true });
    expect([...hand.bench.getState().nodes]).toEqual(['a:0:1', 'a:0:2']);
    hand.click(point(100, 0), { shift: true });
    expect([...hand.bench.getState().nodes]).toEqual(['a:0:2']);
  });

  test('all nodes of a line removed removes the line', () => {
    const hand = nodes();
    hand.click(point(50, 0));
    hand.drag(point(-10, -10), point(210, 10));
    hand.key('Delete');
    expect(hand.lines.map((l) => l.id)).toEqual(['b', 'c']);
    expect(hand.bench.getState().undoable).toHaveLength(1);
  });

  test('a preview never becomes a change', () => {
    const hand = nodes();
    hand.click(point(50, 0));
    hand.press(point(100, 0));
    hand.move(point(140, 30));
    expect(hand.bench.getState().preview).not.toBeNull();
    hand.tool.cancel();
    expect([hand.bench.getState().preview, hand.bench.getState().undoable.length]).toEqual([null, 0]);
  });
});

describe('select', () => {
  const select = () => withLines((r) => new SelectTool(r));

  test('choose, add, move together, delete', () => {
    const hand = select();
    hand.click(point(50, 1));
    hand.click(point(50, 51), { shift: true });
    hand.drag(point(150, 50), point(160, 70));
    expect(hand.lines.map((l) => l.runs[0].nodes[0].point)).toEqual([point(10, 20), point(10, 70), point(0, 100)]);
    hand.key('Backspace');
    expect(hand.lines.map((l) => l.id)).toEqual(['c']);
    expect(hand.bench.getState().lines.size).toBe(0);
  });

  test('what is moved lies down on a guide with the side that is near it; Shift lets guides be', () => {
    const hand = select();
    const { drawing } = hand.bench.getState();
    hand.bench.commit(setPage(drawing, { guides: [{ axis: 'x', at: 230 }] }, 'Add guide'));
    hand.click(point(50, 0));
    hand.drag(point(50, 0), point(76, 13));
    expect(hand.lines[0].runs[0].nodes.map((n) => n.point)).toEqual([point(30, 13), point(130, 13), point(230, 13)]);
    hand.bench.undo();
    hand.press(point(50, 0));
    hand.move(point(76, 0), { shift: true });
    const shown = allLines(shownDrawing(hand.bench.getState()));
    expect(shown[0].runs[0].nodes[2].point.x).toBeCloseTo(226, 9);
  });

  test('lines of a locked sheet are left alone', () => {
    const hand = select();
    const { drawing, sheet } = hand.bench.getState();
    hand.bench.commit(setSheet(drawing, sheet, { locked: true }, 'Lock'));
    hand.click(point(50, 0));
    hand.drag(point(-20, -20), point(300, 300));
    expect(hand.bench.getState().lines.size).toBe(0);
  });
});

test('every stage has a tool, and every tool a stage', () => {
  for (const { id, first } of stageTable) expect(toolsOf(id)).toContain(first);
  for (const { stages } of tools) expect(stages.length).toBeGreaterThan(0);
  expect(new Set(tools.map((t) => t.id)).size).toBe(tools.length);
});

import type { Line, Point } from '@/core';
import { allLines } from '@/core/drawing/items';
import type { Mirror } from '@/core/edits/mirrored';
import { firstPreferences, prefer } from '../state/preferences';
import { shownDrawing } from '../state/store';
import { benchWith, Hand } from '../test/hand';
import { NodesTool } from './nodesTool';
import { PenTool } from './penTool';
import type { ToolContext } from './tool';

/** Drawing in a mirror: what the hand does to one line is done to its images, live, as one change. */

const across: Mirror = { kind: 'across', at: { x: 200, y: 0 } };

function drawing<T extends PenTool | NodesTool>(
  make: (c: ToolContext) => T,
  mirror: Mirror | null,
  tool: 'pen' | 'nodes',
  bench = benchWith(),
): Hand<T> {
  const hand = new Hand(bench, make);
  bench.setState({ sheet: 's0', tool, mirror });
  return hand;
}
const withPen = (mirror: Mirror | null = across): Hand<PenTool> => drawing((c) => new PenTool(c), mirror, 'pen');
const places = (l: Line): number[][] => l.runs[0].nodes.map((n) => [n.point.x, n.point.y]);
const steps = (hand: Hand<PenTool | NodesTool>): number => hand.bench.getState().undoable.length;
const points: Point[] = [
  { x: 100, y: 50 },
  { x: 140, y: 120 },
  { x: 90, y: 180 },
];

beforeEach(() => prefer(firstPreferences));

test('each node is laid on both sides by one press, shown before it is, and taken back by one undo', () => {
  const hand = withPen();
  hand.press(points[0]);
  expect(allLines(shownDrawing(hand.bench.getState()))).toHaveLength(2);
  hand.release(points[0]);
  for (const p of points.slice(1)) hand.click(p);
  hand.key('Enter');
  expect(hand.lines.map(places)).toEqual([points.map(({ x, y }) => [x, y]), points.map(({ x, y }) => [400 - x, y])]);
  expect(steps(hand)).toBe(3);
  hand.bench.undo();
  expect(hand.lines.map((l) => places(l).length)).toEqual([2, 2]);
});

test('a lone node that is given up leaves nothing on either side', () => {
  const hand = withPen();
  hand.click(points[0]);
  hand.key('Enter');
  expect(hand.lines).toEqual([]);
  expect(steps(hand)).toBe(0);
});

test('from the axis to the axis it is one closed line; the axis draws places to it', () => {
  const hand = withPen();
  for (const p of [{ x: 203, y: 40 }, points[0], points[2], { x: 197, y: 260 }]) hand.click(p);
  hand.key('Enter');
  expect(hand.lines).toHaveLength(1);
  expect(hand.lines[0].runs[0].closed).toBe(true);
  expect(places(hand.lines[0])).toHaveLength(6);
  expect(places(hand.lines[0]).filter(([x]) => x === 200)).toHaveLength(2);
  hand.bench.undo();
  expect(hand.lines).toHaveLength(2);
});

test('turned round, a node that is moved on one is moved on all; with the mirror away, on that alone', () => {
  const hand = withPen({ kind: 'round', at: { x: 200, y: 200 }, count: 4 });
  hand.click({ x: 200, y: 100 });
  hand.click({ x: 240, y: 60 });
  hand.key('Enter');
  expect(hand.lines).toHaveLength(4);
  const { bench } = hand;
  const nodes = drawing((c) => new NodesTool(c), bench.getState().mirror, 'nodes', bench);
  bench.choose([hand.lines[0].id]);
  nodes.drag({ x: 240, y: 60 }, { x: 260, y: 40 });
  const far = hand.lines.map((l) => Math.hypot(places(l)[1][0] - 200, places(l)[1][1] - 200));
  expect(new Set(far.map((d) => d.toFixed(6))).size).toBe(1);
  expect(far[0]).toBeCloseTo(Math.hypot(60, 160), 6);
  bench.setState({ mirror: null });
  nodes.drag({ x: 260, y: 40 }, { x: 300, y: 20 });
  expect(
    hand.lines.filter((l) => Math.abs(Math.hypot(places(l)[1][0] - 200, places(l)[1][1] - 200) - far[0]) < 1e-6),
  ).toHaveLength(3);
});

import type { Line, Point } from '@/core';
import { addLine } from '@/core/edits/lines';
import { cornerAt } from '@/core/drawing/run';
import { firstStyle } from '@/core/drawing/schema';
import { firstPreferences, prefer } from '../state/preferences';
import { middleOrigin } from '../state/slices/selection';
import { shownDrawing } from '../state/store';
import { benchWith, Hand } from '../test/hand';
import { allLines } from '@/core/drawing/items';
import { SelectTool } from './selectTool';

/** A square “a” from 100 to 200 each way, chosen; “b”, 60 wide, lies to its right. One page unit is one px. */
const square = (id: string, x: number, y: number, size: number): Line => ({
  id,
  style: firstStyle,
  runs: [
    {
      closed: true,
      nodes: [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ].map(([i, j]) => cornerAt({ x: x + i * size, y: y + j * size })),
    },
  ],
});

function framed(): Hand<SelectTool> {
  const hand = new Hand(benchWith(), (r) => new SelectTool(r));
  const { bench } = hand;
  for (const line of [square('a', 100, 100, 100), square('b', 320, 110, 60)])
    bench.commit(addLine(bench.getState().drawing, 's0', line));
  bench.choose(['a']);
  return hand;
}
const places = (hand: Hand<SelectTool>, i = 0): number[][] =>
  hand.lines[i].runs[0].nodes.map(({ point: { x, y } }) => [x, y].map((v) => Math.round(v * 1e6) / 1e6));
const [corner, side, turn, slant] = [
  { x: 214, y: 214 },
  { x: 214, y: 150 },
  { x: 231, y: 69 },
  { x: 150, y: 69 },
] satisfies Point[];

beforeEach(() => prefer(firstPreferences));

test('a corner scales and keeps the shape, with Ctrl both ways by themselves; one press undoes it', () => {
  const hand = framed();
  hand.drag(corner, { x: 264, y: 264 });
  expect(places(hand)).toEqual([
    [100, 100],
    [250, 100],
    [250, 250],
    [100, 250],
  ]);
  expect(hand.lines[0].style.width).toBeCloseTo(1.5 * firstStyle.width, 9);
  hand.bench.undo();
  hand.drag(corner, { x: 264, y: 224 }, { mod: true });
  expect(places(hand)[2]).toEqual([250, 210]);
  hand.bench.undo();
  hand.drag(corner, { x: 239, y: 239 }, { alt: true });
  expect(places(hand)).toEqual([
    [75, 75],
    [225, 75],
    [225, 225],
    [75, 225],
  ]);
});

test('a side scales one way, and comes into line with what lies around', () => {
  const hand = framed();
  hand.press(side);
  hand.move({ x: 331, y: 190 });
  expect(allLines(shownDrawing(hand.bench.getState()))[0].runs[0].nodes[1].point).toEqual({ x: 320, y: 100 });
  hand.release({ x: 331, y: 190 });
  expect(places(hand)).toEqual([
    [100, 100],
    [320, 100],
    [320, 200],
    [100, 200],
  ]);
});

test('what is beyond a corner turns about the ring, with Shift in steps; the ring keeps to corners and nodes', () => {
  const hand = framed();
  hand.drag(turn, { x: 231, y: 231 }, { shift: true });
  expect(places(hand)).toEqual([
    [200, 100],
    [200, 200],
    [100, 200],
    [100, 100],
  ]);
  hand.bench.undo();
  // The ring waits below the frame, and is brought to a corner.
  hand.drag({ x: 150, y: 235 }, { x: 103, y: 198 });
  expect(hand.bench.getState().origin).toEqual({ share: { x: 0, y: 1 } });
  hand.drag(turn, { x: 231, y: 331 }, { shift: true });
  expect(places(hand)[3]).toEqual([100, 200]);
  hand.bench.undo();
  hand.drag({ x: 100, y: 200 }, { x: 318, y: 112 });
  expect(hand.bench.getState().origin).toEqual({ place: { x: 320, y: 110 } });
  hand.press({ x: 320, y: 110 });
  hand.twice({ x: 320, y: 110 });
  hand.release({ x: 320, y: 110 });
  expect(hand.bench.getState().origin).toEqual(middleOrigin);
});

test('above the frame it is slanted; Escape leaves all as it was', () => {
  const hand = framed();
  hand.press(slant);
  hand.move({ x: 170, y: 69 });
  expect(hand.bench.getState().preview).not.toBeNull();
  hand.key('Escape');
  hand.release({ x: 170, y: 69 });
  expect(places(hand)[0]).toEqual([100, 100]);
  hand.drag(slant, { x: 170, y: 69 });
  expect(places(hand)).toEqual([
    [120, 100],
    [220, 100],
    [180, 200],
    [80, 200],
  ]);
});

test('what is dragged comes into line with others, with Ctrl it is free; without the frame nothing is in the way', () => {
  const hand = framed();
  // Its middle comes level with that of “b”, at 140.
  hand.drag({ x: 150, y: 100 }, { x: 161, y: 88 });
  expect(places(hand)[0]).toEqual([111, 90]);
  hand.bench.undo();
  hand.drag({ x: 150, y: 100 }, { x: 161, y: 88 }, { mod: true });
  expect(places(hand)[0]).toEqual([111, 88]);
  hand.bench.undo();
  prefer({ frame: false });
  hand.drag(corner, { x: 264, y: 264 });
  expect(places(hand)[2]).toEqual([200, 200]);
});

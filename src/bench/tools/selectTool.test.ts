import type { Drawing, Line } from '@/core';
import { findLine } from '@/core/drawing/find';
import { wanderingDrawing } from '@/core/test/drawings';
import { addLine } from '@/core/edits/lines';
import { groupLines } from '@/core/edits/arrange';
import { cornerAt } from '@/core/drawing/run';
import { firstStyle } from '@/core/drawing/schema';
import { firstPreferences, prefer } from '../state/preferences';
import { benchWith, Hand } from '../test/hand';
import { SelectTool } from './selectTool';

/** Level lines “a” to “d”, 50 apart, from x = 100 to 300; “e” lies right over “a”. */
function selecting(): Hand<SelectTool> {
  const hand = new Hand(benchWith(), (r) => new SelectTool(r));
  const { bench } = hand;
  for (const [id, y] of [
    ['a', 100],
    ['b', 150],
    ['c', 200],
    ['d', 250],
    ['e', 100],
  ] as const) {
    const line: Line = {
      id,
      style: firstStyle,
      runs: [{ closed: false, nodes: [cornerAt({ x: 100, y }), cornerAt({ x: 300, y })] }],
    };
    bench.commit(addLine(bench.getState().drawing, 's0', line));
  }
  return hand;
}
const chosen = (h: Hand<SelectTool>): string => [...h.bench.getState().lines].sort().join('');

beforeEach(() => prefer(firstPreferences));

describe('choosing by a region', () => {
  it('a box takes what it touches, or only what it holds whole', () => {
    const hand = selecting();
    hand.drag({ x: 90, y: 140 }, { x: 200, y: 210 });
    expect(chosen(hand)).toBe('bc');
    prefer({ enclosing: true, frame: false });
    hand.drag({ x: 90, y: 140 }, { x: 200, y: 210 });
    expect(chosen(hand)).toBe('');
    hand.drag({ x: 90, y: 140 }, { x: 310, y: 210 });
    expect(chosen(hand)).toBe('bc');
  });

  it('a lasso goes around what is wanted', () => {
    const hand = selecting();
    prefer({ marquee: 'lasso' });
    hand.stroke([
      { x: 90, y: 190 },
      { x: 310, y: 190 },
      { x: 310, y: 260 },
      { x: 200, y: 205 },
      { x: 90, y: 210 },
    ]);
    expect(chosen(hand)).toBe('cd');
    prefer({ enclosing: true, frame: false });
    hand.stroke([
      { x: 90, y: 190 },
      { x: 310, y: 190 },
      { x: 310, y: 260 },
      { x: 200, y: 205 },
      { x: 90, y: 210 },
    ]);
    expect(chosen(hand)).toBe('c');
  });

  it('Shift adds, and takes away what was all chosen', () => {
    const hand = selecting();
    hand.drag({ x: 90, y: 140 }, { x: 200, y: 160 });
    hand.drag({ x: 90, y: 190 }, { x: 200, y: 260 }, { shift: true });
    expect(chosen(hand)).toBe('bcd');
    hand.drag({ x: 90, y: 190 }, { x: 200, y: 210 }, { shift: true });
    expect(chosen(hand)).toBe('bd');
  });
});

test('Alt goes through what lies under the pointer, one by one, and round again', () => {
  const hand = selecting();
  const seen = [0, 1, 2].map(() => {
    hand.click({ x: 200, y: 100 }, { alt: true });
    return chosen(hand);
  });
  expect(new Set(seen.slice(0, 2))).toEqual(new Set(['a', 'e']));
  expect(seen[2]).toBe(seen[0]);
});

describe('groups', () => {
  function grouped(): Hand<SelectTool> {
    const hand = selecting();
    const { bench } = hand;
    bench.commit(groupLines(bench.getState().drawing, new Set(['b', 'c']), 'inner'));
    bench.commit(groupLines(bench.getState().drawing, new Set(['b', 'c', 'd']), 'outer'));
    return hand;
  }
  const enter = (hand: Hand<SelectTool>, y: number): void => {
    hand.click({ x: 200, y });
    hand.press({ x: 200, y });
    hand.twice({ x: 200, y });
    hand.release({ x: 200, y });
  };

  it('are chosen and moved as one; entered, their lines are by themselves; Escape leaves again', () => {
    const hand = grouped();
    hand.click({ x: 200, y: 150 });
    expect(chosen(hand)).toBe('bcd');
    enter(hand, 150);
    expect(chosen(hand)).toBe('bc');
    enter(hand, 150);
    expect(chosen(hand)).toBe('b');
    expect(hand.bench.getState().within).toEqual(['outer', 'inner']);
    hand.drag({ x: 200, y: 150 }, { x: 200, y: 160 });
    expect(hand.lines.find((l) => l.id === 'b')!.runs[0].nodes[0].point.y).toBe(160);
    expect(hand.lines.find((l) => l.id === 'c')!.runs[0].nodes[0].point.y).toBe(200);
    hand.key('Escape');
    expect(chosen(hand)).toBe('bc');
    hand.key('Escape');
    expect(chosen(hand)).toBe('bcd');
    hand.key('Escape');
    expect(chosen(hand)).toBe('');
  });

  it('a click on what is not in it leaves a group', () => {
    const hand = grouped();
    enter(hand, 150);
    hand.click({ x: 200, y: 100 });
    expect(hand.bench.getState().within).toEqual([]);
    hand.click({ x: 200, y: 250 });
    expect(chosen(hand)).toBe('bcd');
  });
});

test('a held arrow key is one change, seen on the way and taken back by one undo', () => {
  const hand = new Hand(benchWith(wanderingDrawing(4, 2, 3)), (context) => new SelectTool(context));
  const { bench } = hand;
  bench.choose(['l0']);
  const at = (d: Drawing) => findLine(d, 'l0')!.line.runs[0].nodes[0].point;
  const start = at(bench.getState().drawing);
  const seen: number[] = [];
  bench.subscribe((s) => s.preview && seen.push(Math.round(at(s.preview).x - start.x)));
  hand.key('ArrowRight', false, 30);
  expect(seen).toEqual(Array.from({ length: 30 }, (_, i) => i + 1));
  expect(at(bench.getState().drawing)).toEqual({ x: start.x + 30, y: start.y });
  expect(bench.getState().undoable).toHaveLength(1);
  hand.key('ArrowUp', true);
  expect(bench.getState().undoable).toHaveLength(2);
  bench.undo();
  bench.undo();
  expect(at(bench.getState().drawing)).toEqual(start);
});

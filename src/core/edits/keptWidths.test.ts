import { linesOf } from '../drawing/items';
import fc from 'fast-check';
import { applyChange, inverseOf, type Drawing, type Line, type Run } from '../index';
import { cornerAt } from '../drawing/run';
import { firstStyle, type Mark } from '../drawing/schema';
import { sectionAt, shareNear } from '../ink/sections';
import { mixedRun, wanderingDrawing } from '../test/drawings';
import type { Edit } from '../change/edit';
import { extendEnd, joinEnds } from './join';
import { moveLines } from './lines';
import { addNode, moveNodes, removeNodes } from './nodes';
import { redrawPart } from './redraw';

const level = (...xs: number[]): Run => ({ closed: false, nodes: xs.map((x) => cornerAt({ x, y: 0 })) });
const mark = (at: number, width: number): Mark => ({ at, left: width / 2, right: width / 2 });
const line = (id: string, run: Run, marks?: Mark[], width = 4): Line => ({
  id,
  style: { ...firstStyle, width },
  runs: [run],
  ...(marks && { marks }),
});
function drawingOf(...lines: Line[]): Drawing {
  const d = wanderingDrawing(0, 1, 1);
  return { ...d, sheets: d.sheets.map((s, i) => (i === 0 ? { ...s, items: lines } : s)) };
}
/** The lines after an edit that can be taken back to the byte. */
function after(d: Drawing, edit: Edit): readonly Line[] {
  const change = { id: 'c', ...edit };
  const result = applyChange(d, change);
  expect(JSON.stringify(applyChange(result, inverseOf(change, 'u', 'Undo')))).toBe(JSON.stringify(d));
  return linesOf(result.sheets[0]);
}
const widthAt = (l: Line, x: number, y = 0): number => {
  const { left, right } = sectionAt(l, shareNear(l, { x, y }).at);
  return left + right;
};
const swelled = line('a', level(0, 100, 200), [mark(0, 2), mark(0.25, 10), mark(1, 4)]);

describe('width marks stay where they are', () => {
  it('when another end of the line is moved', () => {
    const [l] = after(
      drawingOf(swelled),
      moveNodes(drawingOf(swelled), [{ line: 'a', run: 0, node: 2 }], { x: 300, y: 0 }),
    );
    expect(widthAt(l, 50)).toBeCloseTo(10, 6);
    expect(widthAt(l, 500)).toBeCloseTo(4, 6);
  });

  it('when the line is drawn on, and the end’s own goes on to the new end', () => {
    const d = drawingOf(swelled);
    const [l] = after(d, extendEnd(d, { line: swelled.id, run: 0, atStart: false }, cornerAt({ x: 400, y: 0 })));
    expect(l.marks!.map((m) => m.at)).toEqual([0, expect.closeTo(0.125, 9), 1]);
    expect(widthAt(l, 50)).toBeCloseTo(10, 6);
    expect(widthAt(l, 400)).toBeCloseTo(4, 6);
  });

  it('when a node is added or taken away, or the line moved as a whole: then nothing is written', () => {
    const d = drawingOf(swelled);
    for (const e of [
      addNode(d, swelled, 0, 0, 0.3),
      removeNodes(d, [{ line: 'a', run: 0, node: 1 }]),
      moveLines(d, ['a'], { x: 3, y: 4 }),
    ])
      expect(after(d, e)[0].marks).toEqual(swelled.marks);
  });

  it('on closed lines, also when the first node goes', () => {
    const square: Run = {
      closed: true,
      nodes: [
        [0, 0],
        [100, 0],
        [100, 100],
        [0, 100],
      ].map(([x, y]) => cornerAt({ x, y })),
    };
    const own = line('a', square, [mark(0.125, 2), mark(0.375, 10), mark(0.625, 4), mark(0.875, 6)]);
    const d = drawingOf(own);
    const [l] = after(d, removeNodes(d, [{ line: 'a', run: 0, node: 0 }], true));
    expect(widthAt(l, 100, 50)).toBeCloseTo(10, 6);
    expect(widthAt(l, 50, 100)).toBeCloseTo(4, 6);
    expect(l.marks!.every((m, i) => m.at >= 0 && m.at <= 1 && (i === 0 || m.at >= l.marks![i - 1].at))).toBe(true);
  });

  it('between the nodes that stay, on any run', () => {
    fc.assert(
      fc.property(
        fc.nat(500),
        fc.integer({ min: 4, max: 9 }),
        fc.boolean(),
        fc.nat(100),
        fc.double({ min: 0.01, max: 0.99, noNaN: true }),
        (seed, count, closed, which, at) => {
          const run = mixedRun(seed, count, closed);
          const own = line('a', run, [mark(at, 6)]);
          const place = sectionAt(own, at).p;
          const segment = which % run.nodes.length;
          const moved = moveNodes(drawingOf(own), [{ line: 'a', run: 0, node: segment }], { x: 30, y: -20 });
          const [l] = after(drawingOf(own), moved);
          const near = [segment, (segment + run.nodes.length - 1) % run.nodes.length];
          const before = shareNear(own, place);
          const held = l.marks![0].at;
          expect(held >= 0 && held <= 1).toBe(true);
          // Where neither segment beside the moved node holds the mark, it has not moved.
          const shares = ownShares(own);
          const lies = shares.findLastIndex((s) => s <= before.at);
          const moves = near.includes(lies) || run.nodes.some((n) => n.kind === 'flowing');
          if (!moves)
            expect(Math.hypot(sectionAt(l, held).p.x - place.x, sectionAt(l, held).p.y - place.y)).toBeLessThan(0.05);
        },
      ),
    );
  });
});

function ownShares(l: Line): number[] {
  return l.runs[0].nodes.map((n, i) => (i === 0 ? 0 : shareNear(l, n.point).at));
}

describe('joined lines', () => {
  const thin = line('b', level(300, 400), undefined, 1);
  it.each([
    [false, true],
    [true, false],
  ])('are as wide as both were, from whichever ends (%s, %s)', (aStart, bStart) => {
    const first = aStart ? line('a', level(200, 100, 0), [mark(0, 4), mark(0.75, 10), mark(1, 2)]) : swelled;
    const second = bStart ? thin : line('b', level(400, 300), undefined, 1);
    const d = drawingOf(first, second);
    const [l, ...others] = after(
      d,
      joinEnds(d, { line: 'a', run: 0, atStart: aStart }, { line: 'b', run: 0, atStart: bStart }),
    );
    expect(others).toEqual([]);
    expect(widthAt(l, 0)).toBeCloseTo(2, 6);
    expect(widthAt(l, 50)).toBeCloseTo(10, 6);
    expect(widthAt(l, 350)).toBeCloseTo(1, 6);
    expect(widthAt(l, 400)).toBeCloseTo(1, 6);
    expect(widthAt(l, 250)).toBeGreaterThan(1.5);
    expect(widthAt(l, 250)).toBeLessThan(3.5);
  });

  it('that meet in one place run over into each other close by', () => {
    const d = drawingOf(swelled, line('b', level(200, 400), [mark(0, 8), mark(1, 8)]));
    const [l] = after(d, joinEnds(d, { line: 'a', run: 0, atStart: false }, { line: 'b', run: 0, atStart: true }));
    expect(widthAt(l, 220)).toBeCloseTo(8, 6);
    expect(widthAt(l, 200)).toBeCloseTo(6, 6);
    expect(widthAt(l, 50)).toBeCloseTo(10, 6);
  });

  it('of one plain width stay plain', () => {
    const d = drawingOf(line('a', level(0, 100)), line('b', level(200, 300)));
    const [l] = after(d, joinEnds(d, { line: 'a', run: 0, atStart: false }, { line: 'b', run: 0, atStart: true }));
    expect(l.marks).toBeUndefined();
  });
});

describe('a part that is drawn anew', () => {
  const long = line('a', level(0, 400, 800), [mark(0, 2), mark(1, 2)]);
  const places = [
    { segment: 0, t: 0.5 },
    { segment: 1, t: 0.5 },
  ];
  it.each([false, true])('has the widths of its own stroke, whichever way it was drawn (%s)', (turned) => {
    const d = drawingOf(long);
    const [from, to] = turned ? [places[1], places[0]] : places;
    const stroke = turned ? level(600, 400, 200) : level(200, 400, 600);
    const own = turned ? [mark(0, 4), mark(1, 8)] : [mark(0, 8), mark(1, 4)];
    const [l] = after(d, redrawPart(d, 'a', 0, from, to, stroke, own));
    expect(widthAt(l, 201)).toBeCloseTo(8, 1);
    expect(widthAt(l, 599)).toBeCloseTo(4, 1);
    for (const x of [0, 100, 180, 620, 800]) expect(widthAt(l, x)).toBeCloseTo(2, 6);
  });

  it('keeps to the part that it takes of a closed line', () => {
    const ring: Run = {
      closed: true,
      nodes: [
        [0, 0],
        [400, 0],
        [400, 400],
        [0, 400],
      ].map(([x, y]) => cornerAt({ x, y })),
    };
    const d = drawingOf(line('a', ring, [mark(0.3, 2)]));
    // Across the seam: from the middle of the last side to the middle of the first.
    const stroke: Run = {
      closed: false,
      nodes: [
        [0, 200],
        [0, 0],
        [200, 0],
      ].map(([x, y]) => cornerAt({ x, y })),
    };
    const [l] = after(
      d,
      redrawPart(d, 'a', 0, { segment: 3, t: 0.5 }, { segment: 0, t: 0.5 }, stroke, [mark(0, 6), mark(1, 6)]),
    );
    expect(widthAt(l, 0, 100)).toBeCloseTo(6, 6);
    expect(widthAt(l, 100, 0)).toBeCloseTo(6, 6);
    for (const [x, y] of [
      [300, 0],
      [400, 200],
      [200, 400],
      [0, 300],
    ])
      expect(widthAt(l, x, y)).toBeCloseTo(2, 6);
  });
});

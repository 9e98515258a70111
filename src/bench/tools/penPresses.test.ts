import { linesOf } from '@/core/drawing/items';
import type { Line, Node, Point } from '@/core';
import { addLine } from '@/core/edits/lines';
import { setPage } from '@/core/edits/page';
import { addSheet } from '@/core/edits/sheets';
import { cornerAt } from '@/core/drawing/run';
import { firstStyle } from '@/core/drawing/schema';
import { cross, dot } from '@/core/geometry/point';
import { firstPreferences, prefer } from '../state/preferences';
import { benchWith, Hand } from '../test/hand';
import { PenTool } from './penTool';

/** What a press of the pen may not do to lines that are there, and what it does when that is asked for. */

function newHand(): Hand<PenTool> {
  const hand = new Hand(benchWith(), (r) => new PenTool(r));
  hand.bench.setState({ sheet: 's0' });
  return hand;
}
const places = (l: Line): number[][] => l.runs[0].nodes.map((n) => [n.point.x, n.point.y]);
const words = (hand: Hand<PenTool>): string =>
  hand.tool
    .hints()
    .map((h) => `${h.keys}: ${h.what}`)
    .join(' | ');
const isInLine = ({ in: a, out: b }: Node): boolean => !!a && !!b && dot(a, b) < 0 && Math.abs(cross(a, b)) < 1e-6;

beforeEach(() => prefer(firstPreferences));

/** Straight lines laid one after the other, each ended with Enter. */
function lay(hand: Hand<PenTool>, lines: readonly (readonly Point[])[]): void {
  for (const line of lines) {
    for (const p of line) hand.click(p);
    hand.key('Enter');
  }
}

const middle = { x: 400, y: 300 };
const around = (k: number): Point => ({
  x: Math.round(400 + 200 * Math.cos((k * Math.PI) / 6)),
  y: Math.round(300 + 200 * Math.sin((k * Math.PI) / 6)),
});
const rays = Array.from({ length: 12 }, (_, k) => around(k));

describe.each([
  ['with lines kept to', true],
  ['without', false],
])('%s', (_, snapLines) => {
  it.each([
    ['outwards', (p: Point) => [middle, p]],
    ['inwards', (p: Point) => [p, middle]],
  ])('rays drawn %s are lines of their own', (__, ray) => {
    const hand = newHand();
    prefer({ snapLines });
    lay(hand, rays.map(ray));
    expect(hand.lines.map(places)).toEqual(rays.map((p) => ray(p).map(({ x, y }) => [x, y])));
  });

  it('a line starts on a chosen line’s nodes and segments, and leaves them as they are', () => {
    const hand = newHand();
    prefer({ snapLines });
    lay(hand, [
      [
        { x: 100, y: 100 },
        { x: 200, y: 100 },
        { x: 300, y: 100 },
      ],
    ]);
    const [before] = hand.lines;
    hand.bench.choose([before.id]);
    lay(hand, [
      [
        { x: 200, y: 100 },
        { x: 200, y: 300 },
      ],
      [
        { x: 250, y: 100 },
        { x: 250, y: 300 },
      ],
    ]);
    expect(hand.lines).toHaveLength(3);
    expect(hand.lines[0]).toBe(before);
  });
});

it('Alt does nothing to other lines while lines are not kept to', () => {
  const hand = newHand();
  prefer({ snapLines: false });
  lay(hand, [
    [
      { x: 100, y: 100 },
      { x: 200, y: 100 },
    ],
  ]);
  for (const x of [200, 150, 100]) {
    hand.click({ x, y: 100 }, { alt: true });
    hand.click({ x, y: 300 }, { alt: true });
    hand.key('Enter');
  }
  expect(hand.lines.map((l) => l.runs[0].nodes.length)).toEqual([2, 2, 2, 2]);
});

it('says beforehand what a press does, and what it would do with Alt', () => {
  const hand = newHand();
  lay(hand, [
    [
      { x: 100, y: 100 },
      { x: 200, y: 100 },
    ],
  ]);
  hand.hover({ x: 201, y: 101 });
  expect(words(hand)).toMatch(/^click: start a line on this node .*Alt click: draw that line on/);
  expect(hand.tool.pointer()).toBe('pen touch');
  hand.hover({ x: 201, y: 101 }, { alt: true });
  expect(words(hand)).toMatch(/^Alt click: draw on from this end/);
  expect(hand.tool.pointer()).toBe('pen join');
  hand.hover({ x: 150, y: 101 });
  expect(words(hand)).toContain('Alt click: add a node');
  hand.click({ x: 400, y: 200 });
  hand.hover({ x: 201, y: 101 });
  expect(words(hand)).toContain('Alt click: join the two lines');
});

it.each([false, true])('stays on the sheet in hand at the ends of lines on others (with Alt: %s)', (alt) => {
  const hand = newHand();
  lay(hand, [
    [
      { x: 100, y: 100 },
      { x: 200, y: 100 },
    ],
  ]);
  const { bench } = hand;
  bench.commit(addSheet(bench.getState().drawing, 'other', 'Other'));
  bench.setState({ sheet: 'other' });
  hand.click({ x: 201, y: 101 }, { alt });
  hand.click({ x: 300, y: 200 });
  hand.click({ x: 101, y: 101 }, { alt });
  hand.key('Enter');
  const { sheets } = bench.getState().drawing;
  const drawn = [
    [200, 100],
    [300, 200],
    [100, 100],
  ];
  expect(linesOf(sheets.find((s) => s.id === 's0')!).map(places)).toEqual([drawn.toSpliced(1, 1).toReversed()]);
  expect(linesOf(sheets.find((s) => s.id === 'other')!).map(places)).toEqual([drawn]);
});

describe('pressed twice at once', () => {
  const closed = (): Hand<PenTool> => {
    const hand = newHand();
    for (const p of [around(0), around(4), around(8), around(0)]) hand.click(p);
    return hand;
  };

  it('the closing node closes the line, and that is all', () => {
    const hand = closed();
    hand.click(around(0), { again: true });
    hand.click({ x: 50, y: 50 });
    hand.click({ x: 90, y: 50 });
    expect(hand.lines.map((l) => [l.runs[0].closed, l.runs[0].nodes.length])).toEqual([
      [true, 3],
      [false, 2],
    ]);
  });

  it('a line is taken up once, and a node added once', () => {
    const hand = newHand();
    lay(hand, [
      [
        { x: 100, y: 100 },
        { x: 200, y: 100 },
      ],
    ]);
    hand.bench.choose([hand.lines[0].id]);
    hand.click({ x: 150, y: 100 }, { alt: true });
    hand.click({ x: 150, y: 100 }, { alt: true, again: true });
    expect(hand.lines[0].runs[0].nodes).toHaveLength(3);
  });

  it('a place takes one node, and two presses that a key parts count as two', () => {
    const hand = newHand();
    hand.click(around(0));
    hand.click(around(1));
    hand.click(around(1), { again: true });
    hand.click(around(2));
    expect(hand.lines[0].runs[0].nodes).toHaveLength(3);
  });
});

describe('a click that closes or joins a curved line', () => {
  /** A line of smooth nodes. */
  const curved = (): Hand<PenTool> => {
    const hand = newHand();
    hand.drag({ x: 200, y: 200 }, { x: 240, y: 180 });
    hand.drag({ x: 400, y: 200 }, { x: 430, y: 240 });
    hand.drag({ x: 300, y: 400 }, { x: 260, y: 400 });
    return hand;
  };

  it('goes smoothly through the first node, as was shown', () => {
    const hand = curved();
    hand.click({ x: 200, y: 200 });
    const [run] = hand.lines[0].runs;
    expect(run.closed).toBe(true);
    for (const n of run.nodes) expect([n.kind, isInLine(n)]).toEqual(['smooth', true]);
  });

  it('straight, with Alt, leaves corners that say so', () => {
    const hand = curved();
    hand.click({ x: 200, y: 200 }, { alt: true });
    const [run] = hand.lines[0].runs;
    expect(run.nodes.map((n) => n.kind)).toEqual(['corner', 'smooth', 'corner']);
    expect([run.nodes[0].in, run.nodes[2].out]).toEqual([null, null]);
  });

  it('runs into the end of the other line smoothly; drawn on by a click, a smooth end is a corner', () => {
    const hand = newHand();
    const other: Line = {
      id: 'b',
      style: firstStyle,
      runs: [
        {
          closed: false,
          nodes: [
            { ...cornerAt({ x: 500, y: 200 }), kind: 'smooth', out: { x: 40, y: 30 } },
            { ...cornerAt({ x: 600, y: 300 }), kind: 'smooth', in: { x: -40, y: -30 } },
          ],
        },
      ],
    };
    hand.bench.commit(addLine(hand.bench.getState().drawing, 's0', other));
    hand.drag({ x: 300, y: 200 }, { x: 340, y: 180 });
    hand.click({ x: 500, y: 200 }, { alt: true });
    expect(hand.lines).toHaveLength(1);
    const joint = hand.lines[0].runs[0].nodes[1];
    expect([joint.kind, joint.out, isInLine(joint)]).toEqual(['smooth', { x: 40, y: 30 }, true]);
    hand.click({ x: 600, y: 300 }, { alt: true });
    hand.click({ x: 700, y: 250 });
    expect(hand.lines[0].runs[0].nodes.map((n) => n.kind)).toEqual(['smooth', 'smooth', 'corner', 'corner']);
  });
});

it('with Ctrl a place keeps to nothing: neither to lines nor to guides', () => {
  const hand = newHand();
  const { drawing } = hand.bench.getState();
  hand.bench.commit(setPage(drawing, { guides: [{ axis: 'x', at: 300 }] }, 'Add guide'));
  hand.click({ x: 303, y: 200 });
  hand.click({ x: 303, y: 240 }, { mod: true });
  expect(hand.lines.map(places)).toEqual([
    [
      [300, 200],
      [303, 240],
    ],
  ]);
});

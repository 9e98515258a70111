import type { Line, Node } from '@/core';
import { addLine } from '@/core/edits/lines';
import { setSheet } from '@/core/edits/sheets';
import { cornerAt } from '@/core/drawing/run';
import { firstStyle } from '@/core/drawing/schema';
import { firstPreferences, prefer } from '../state/preferences';
import { benchWith, Hand } from '../test/hand';
import { PenTool } from './penTool';

const at = (x: number, y: number, rest: Partial<Node> = {}): Node => ({ ...cornerAt({ x, y }), ...rest });

/** A pen over a drawing with two lines: “a” from (100,100) to (200,100), “b” from (300,100) to (300,200). */
function penOver(...lines: Line[]): Hand<PenTool> {
  const hand = new Hand(benchWith(), (r) => new PenTool(r));
  const { bench } = hand;
  bench.setState({ sheet: 's0' });
  const given =
    lines.length > 0
      ? lines
      : [
          {
            id: 'a',
            style: { ...firstStyle, width: 7 },
            runs: [{ closed: false, nodes: [at(100, 100), at(200, 100)] }],
          },
          { id: 'b', style: firstStyle, runs: [{ closed: false, nodes: [at(300, 100), at(300, 200)] }] },
        ];
  for (const line of given) bench.commit(addLine(bench.getState().drawing, 's0', line));
  return hand;
}
const places = (l: Line): number[][] => l.runs[0].nodes.map((n) => [n.point.x, n.point.y]);

beforeEach(() => prefer(firstPreferences));

describe('the pen at lines that are there', () => {
  it.each([
    [
      { x: 202, y: 101 },
      [
        [100, 100],
        [200, 100],
        [250, 150],
        [250, 250],
      ],
    ],
    [
      { x: 98, y: 99 },
      [
        [250, 250],
        [250, 150],
        [100, 100],
        [200, 100],
      ],
    ],
  ])('draws on from either end (%j), and undo takes back one node a press', (end, wanted) => {
    const hand = penOver();
    hand.click(end, { alt: true });
    hand.click({ x: 250, y: 150 });
    hand.click({ x: 250, y: 250 });
    expect(hand.lines).toHaveLength(2);
    expect(places(hand.lines[0])).toEqual(wanted);
    hand.bench.undo();
    expect(hand.lines[0].runs[0].nodes).toHaveLength(3);
    // The line is still under the pen.
    hand.click({ x: 260, y: 260 });
    expect(hand.lines[0].runs[0].nodes).toHaveLength(4);
    hand.key('Backspace');
    hand.key('Enter');
    expect(hand.lines[0].runs[0].nodes).toHaveLength(3);
  });

  it('draws the handle at an end anew when it is pulled from there', () => {
    const hand = penOver();
    hand.drag({ x: 100, y: 100 }, { x: 60, y: 80 }, { alt: true });
    hand.click({ x: 20, y: 200 });
    const [{ nodes }] = hand.lines[0].runs;
    expect(nodes.map((n) => n.in)).toEqual([null, { x: -40, y: -20 }, null]);
  });

  it('joins a line to another, with a curve where it is pulled, in the style of the first', () => {
    const hand = penOver();
    hand.click({ x: 200, y: 100 }, { alt: true });
    hand.drag({ x: 301, y: 101 }, { x: 340, y: 101 }, { alt: true });
    expect(hand.lines).toHaveLength(1);
    const [line] = hand.lines;
    expect(line.style.width).toBe(7);
    expect(places(line)).toEqual([
      [100, 100],
      [200, 100],
      [300, 100],
      [300, 200],
    ]);
    expect(line.runs[0].nodes[2].in).toEqual({ x: -40, y: -1 });
    // The line is done: the next press starts another.
    hand.click({ x: 500, y: 300 });
    hand.click({ x: 560, y: 300 });
    expect(hand.lines).toHaveLength(2);
    for (let i = 0; i < 3; i++) hand.bench.undo();
    expect(hand.lines.map((l) => l.id)).toEqual(['a', 'b']);
  });

  it('joins the two ends of one line, continued at its start', () => {
    const hand = penOver();
    hand.click({ x: 100, y: 100 }, { alt: true });
    hand.click({ x: 150, y: 160 });
    hand.click({ x: 200, y: 100 });
    expect(hand.lines[0].runs[0]).toMatchObject({ closed: true, nodes: { length: 3 } });
  });

  it('starts and ends on another line where it is drawn to it, and not while Ctrl is held or with that off', () => {
    const hand = penOver();
    hand.click({ x: 150, y: 104 });
    hand.click({ x: 160, y: 150 });
    hand.click({ x: 296, y: 150 });
    hand.key('Enter');
    const drawn = hand.lines[2];
    expect(places(drawn)).toEqual([
      [150, 100],
      [160, 150],
      [300, 150],
    ]);
    hand.click({ x: 150, y: 104 }, { mod: true });
    hand.click({ x: 120, y: 200 });
    hand.click({ x: 296, y: 150 }, { mod: true });
    hand.key('Enter');
    expect(places(hand.lines[3])).toEqual([
      [150, 104],
      [120, 200],
      [296, 150],
    ]);
    prefer({ snapLines: false });
    hand.click({ x: 100, y: 300 });
    hand.click({ x: 303, y: 175 });
    expect(places(hand.lines[4])[1]).toEqual([303, 175]);
  });

  it('adds a node to a chosen line and takes one away with Alt; without it a line starts there', () => {
    const hand = penOver();
    hand.bench.choose(['a']);
    hand.click({ x: 150, y: 101 }, { alt: true });
    expect(places(hand.lines[0])).toEqual([
      [100, 100],
      [150, 100],
      [200, 100],
    ]);
    hand.click({ x: 150, y: 101 }, { alt: true });
    expect(places(hand.lines[0])).toEqual([
      [100, 100],
      [200, 100],
    ]);
    hand.click({ x: 150, y: 101 });
    hand.click({ x: 150, y: 300 });
    expect(places(hand.lines[0])).toHaveLength(2);
    expect(places(hand.lines[2])).toEqual([
      [150, 100],
      [150, 300],
    ]);
  });

  it('leaves lines on locked sheets alone', () => {
    const hand = penOver();
    const { bench } = hand;
    bench.commit(setSheet(bench.getState().drawing, 's0', { locked: true }, 'Lock'));
    bench.setState({ sheet: 's1' });
    hand.click({ x: 200, y: 100 });
    hand.click({ x: 250, y: 150 });
    expect(places(hand.lines[0])).toHaveLength(2);
    expect(places(hand.lines[2])).toEqual([
      [200, 100],
      [250, 150],
    ]);
  });
});

describe('straight first, and closing', () => {
  it('a press that is dragged moves the node and makes no handles', () => {
    const hand = penOver();
    prefer({ straightFirst: true });
    hand.drag({ x: 400, y: 300 }, { x: 440, y: 320 });
    hand.drag({ x: 500, y: 300 }, { x: 520, y: 360 });
    expect(hand.lines[2].runs[0].nodes).toEqual([at(440, 320), at(520, 360)]);
  });

  it('Alt closes without a last curve', () => {
    const hand = penOver();
    hand.drag({ x: 400, y: 300 }, { x: 440, y: 300 });
    hand.drag({ x: 500, y: 400 }, { x: 500, y: 440 });
    hand.click({ x: 400, y: 300 }, { alt: true });
    const [run] = hand.lines[2].runs;
    expect(run.closed).toBe(true);
    expect([run.nodes[0].in, run.nodes[1].out]).toEqual([null, null]);
    expect(run.nodes[0].out).not.toBeNull();
  });

  it('says so when the handle leads away from where the pen points', () => {
    const hand = penOver();
    hand.drag({ x: 400, y: 300 }, { x: 440, y: 300 });
    hand.hover({ x: 480, y: 310 });
    expect(hand.tool.hints().some((h) => h.keys.includes('away'))).toBe(false);
    hand.hover({ x: 330, y: 310 });
    expect(hand.tool.hints()[0].keys).toBe('the handle points away');
    hand.click({ x: 400, y: 300 });
    hand.hover({ x: 330, y: 310 });
    expect(hand.tool.hints().some((h) => h.keys.includes('away'))).toBe(false);
  });
});

describe('a pen that is pressed', () => {
  const pen = (pressure: number) => ({ kind: 'pen' as const, pressure });

  it('gives each node a width; undo takes node and width back together', () => {
    const hand = new Hand(benchWith(), (r) => new PenTool(r));
    hand.click({ x: 100, y: 100 }, pen(0.2));
    hand.click({ x: 300, y: 100 }, pen(1));
    hand.click({ x: 400, y: 100 }, pen(0.2));
    const [line] = hand.lines;
    const half = (p: number) => ((0.2 + 1.3 * p) * line.style.width) / 2;
    expect(line.marks?.map((m) => [m.at, m.left])).toEqual([
      [0, expect.closeTo(half(0.2), 6)],
      [expect.closeTo(2 / 3, 6), expect.closeTo(half(1), 6)],
      [1, expect.closeTo(half(0.2), 6)],
    ]);
    hand.bench.undo();
    expect(hand.lines[0].marks).toHaveLength(2);
    expect(hand.lines[0].runs[0].nodes).toHaveLength(2);
  });

  it('does not with the switch off, nor does a mouse', () => {
    for (const held of [pen(0.7), { kind: 'mouse' as const, pressure: 0.5 }]) {
      prefer({ pressure: held.kind === 'mouse' });
      const hand = new Hand(benchWith(), (r) => new PenTool(r));
      for (const x of [100, 200, 300]) hand.click({ x, y: 100 }, held);
      expect(hand.lines[0].marks).toBeUndefined();
    }
  });
});

import type { Line, Point } from '@/core';
import { cornerAt } from '@/core/drawing/run';
import { firstStyle } from '@/core/drawing/schema';
import { addLine } from '@/core/edits/lines';
import { firstPreferences, prefer } from '../state/preferences';
import { benchWith, Hand } from '../test/hand';
import { penPromise, type PromiseId } from './penPromise';
import { PenTool } from './penTool';

/** Every row of the table, done: what comes of it, what was said before, and that no other line changes but with Alt. */

/** “a” runs level from (100, 100) over (150, 100) to (200, 100). One page unit is one px. */
const a: Line = {
  id: 'a',
  style: firstStyle,
  runs: [{ closed: false, nodes: [100, 150, 200].map((x) => cornerAt({ x, y: 100 })) }],
};
const at = {
  place: { x: 300, y: 300 },
  node: { x: 151, y: 101 },
  segment: { x: 125, y: 102 },
  end: { x: 199, y: 101 },
  first: { x: 400, y: 200 },
  last: { x: 450, y: 350 },
} satisfies Record<string, Point>;

function penOver(): Hand<PenTool> {
  const hand = new Hand(benchWith(), (c) => new PenTool(c));
  hand.bench.setState({ sheet: 's0' });
  hand.bench.commit(addLine(hand.bench.getState().drawing, 's0', a));
  return hand;
}
/** The same, with a line of three nodes in hand, the last with a handle. */
function drawing(): Hand<PenTool> {
  const hand = penOver();
  hand.click(at.first);
  hand.click({ x: 480, y: 260 });
  hand.drag(at.last, { x: 420, y: 380 });
  return hand;
}
const nodes = (hand: Hand<PenTool>, i = 1) => hand.lines[i].runs[0].nodes;
const places = (hand: Hand<PenTool>, i = 1): number[][] => nodes(hand, i).map((n) => [n.point.x, n.point.y]);
const pull = (p: Point): Point => ({ x: p.x + 30, y: p.y + 10 });

type Proof = { under: Point; check: (hand: Hand<PenTool>) => void; chosen?: true };
const laid = (i: number, [x, y]: number[], handles: 'corner' | 'curve'): ((hand: Hand<PenTool>) => void) => {
  return (hand) => {
    const node = nodes(hand)[i];
    expect([node.point.x, node.point.y]).toEqual([x, y]);
    expect(node.kind === 'smooth' && node.out !== null).toBe(handles === 'curve');
    expect(hand.lines).toHaveLength(2);
  };
};

const proofs: Record<PromiseId, Proof> = {
  'start with a corner': { under: at.place, check: laid(0, [300, 300], 'corner') },
  'start with a curve': { under: at.place, check: laid(0, [300, 300], 'curve') },
  'start on a node': { under: at.node, check: laid(0, [150, 100], 'corner') },
  'curve from a node': { under: at.node, check: laid(0, [150, 100], 'curve') },
  'start on a line': { under: at.segment, check: laid(0, [125, 100], 'corner') },
  'curve from a line': { under: at.segment, check: laid(0, [125, 100], 'curve') },
  'start beside a line': { under: at.segment, check: laid(0, [125, 102], 'corner') },
  'draw on': {
    under: at.end,
    check: (hand) => {
      hand.click(at.place);
      expect(places(hand, 0).slice(2)).toEqual([
        [200, 100],
        [300, 300],
      ]);
    },
  },
  'draw on anew': {
    under: at.end,
    check: (hand) => expect(nodes(hand, 0)[2].out).toEqual({ x: 29, y: 11 }),
  },
  'add a node': { under: at.segment, chosen: true, check: (hand) => expect(nodes(hand, 0)).toHaveLength(4) },
  'take a node away': { under: at.node, chosen: true, check: (hand) => expect(nodes(hand, 0)).toHaveLength(2) },
  corner: { under: at.place, check: laid(3, [300, 300], 'corner') },
  curve: { under: at.place, check: laid(3, [300, 300], 'curve') },
  'in steps': {
    under: { x: 452, y: 500 },
    check: (hand) => expect(nodes(hand)[3].point.x).toBeCloseTo(450, 6),
  },
  'drop the handle': {
    under: at.last,
    check: (hand) => expect([nodes(hand).length, nodes(hand)[2].out]).toEqual([3, null]),
  },
  'draw the handle': { under: at.last, check: (hand) => expect(nodes(hand)[2].out).toEqual({ x: 30, y: 10 }) },
  close: {
    under: at.first,
    check: (hand) => expect([hand.lines[1].runs[0].closed, nodes(hand).length]).toEqual([true, 3]),
  },
  'close with a curve': {
    under: at.first,
    check: (hand) => expect([hand.lines[1].runs[0].closed, nodes(hand)[0].in]).toEqual([true, { x: -30, y: -10 }]),
  },
  'close straight': {
    under: at.first,
    check: (hand) =>
      expect([hand.lines[1].runs[0].closed, nodes(hand)[0].in, nodes(hand)[2].out]).toEqual([true, null, null]),
  },
  'corner on a node': { under: at.node, check: laid(3, [150, 100], 'corner') },
  'curve on a node': { under: at.node, check: laid(3, [150, 100], 'curve') },
  'corner on a line': { under: at.segment, check: laid(3, [125, 100], 'corner') },
  'curve on a line': { under: at.segment, check: laid(3, [125, 100], 'curve') },
  'corner beside a line': { under: at.segment, check: laid(3, [125, 102], 'corner') },
  join: { under: at.end, check: (hand) => expect([hand.lines.length, nodes(hand, 0).length]).toEqual([1, 6]) },
  'join with a curve': {
    under: at.end,
    check: (hand) => {
      expect([hand.lines.length, nodes(hand, 0).length]).toEqual([1, 6]);
      expect(nodes(hand, 0).flatMap((n) => [n.in, n.out])).toContainEqual({ x: -29, y: -11 });
    },
  },
};

beforeEach(() => prefer(firstPreferences));

test.each(penPromise)('$while, on $under: $keys: $what', ({ id, while: when, keys, what }) => {
  const { under, check, chosen } = proofs[id];
  const hand = when === 'idle' ? penOver() : drawing();
  const held = { alt: keys.startsWith('Alt'), shift: keys.startsWith('Shift'), mod: keys.startsWith('Ctrl') };
  hand.bench.choose(chosen ? ['a'] : []);
  hand.hover(under, { ...held, mod: false, shift: false });
  const said = hand.tool.hints().map((h) => `${h.keys}: ${h.what}`);
  // What is held once the pen is down, or for a place just beside, is said with the key alone.
  if (!held.shift && !held.mod) expect(said).toContain(`${keys}: ${what}`);
  if (keys.endsWith('drag')) hand.drag(under, pull(under), held);
  else hand.click(under, held);
  if (!held.alt || id.startsWith('close')) expect(hand.lines[0]).toEqual(a);
  check(hand);
});

import type { Cubic, Point, Reference } from '@/core';
import { wanderingDrawing } from '@/core/test/drawings';
import type { Follow } from '../state/follow';
import { firstPreferences, prefer, preferences } from '../state/preferences';
import { benchWith, Hand } from '../test/hand';
import { PenTool } from './penTool';

const places = (hand: Hand<PenTool>): number[][] => hand.lines[0].runs[0].nodes.map((n) => [n.point.x, n.point.y]);

beforeEach(() => prefer(firstPreferences));

describe('following the ink', () => {
  const curve = (from: Point, to: Point): Cubic => [from, { x: from.x, y: from.y + 30 }, { x: to.x, y: to.y + 30 }, to];
  const follow = (answer: (from: Point, to: Point) => Cubic[] | null): Follow => ({
    state: 'ready',
    prepare: () => Promise.resolve(),
    path: (from, to) => Promise.resolve(answer(from, to)),
  });
  const settle = (): Promise<void> => new Promise((done) => setTimeout(done, 0));
  const picture = { id: 'r', picture: 'a'.repeat(64), visible: true, beside: false } as Reference;

  function following(answer: (from: Point, to: Point) => Cubic[] | null): Hand<PenTool> {
    const d = wanderingDrawing(0, 1, 1);
    prefer({ follow: true });
    return new Hand(benchWith({ ...d, references: [picture] }), (r) => new PenTool(r, follow(answer)));
  }

  it('a press takes the curve as nodes, one undo step; Shift and Escape make it plain', async () => {
    const hand = following((a, b) => [curve(a, { x: 150, y: 90 }), curve({ x: 150, y: 90 }, b)]);
    hand.click({ x: 100, y: 100 });
    hand.click({ x: 200, y: 100 });
    await settle();
    expect(places(hand)).toEqual([
      [100, 100],
      [150, 90],
      [200, 100],
    ]);
    expect(hand.lines[0].runs[0].nodes[0].out).toEqual({ x: 0, y: 30 });
    hand.bench.undo();
    expect(hand.lines[0].runs[0].nodes).toHaveLength(1);
    hand.click({ x: 200, y: 100 }, { shift: true });
    expect(places(hand)).toEqual([
      [100, 100],
      [200, 100],
    ]);
    hand.key('Escape');
    expect(preferences.getState().follow).toBe(false);
    hand.click({ x: 300, y: 200 });
    expect(places(hand)).toEqual([
      [100, 100],
      [200, 100],
      [300, 200],
    ]);
  });

  it('closes along the ink, and goes straight where nothing leads', async () => {
    const hand = following((a, b) => (b.x > 150 ? null : [curve(a, b)]));
    hand.click({ x: 100, y: 100 });
    hand.click({ x: 200, y: 100 });
    await settle();
    hand.click({ x: 150, y: 200 });
    await settle();
    hand.click({ x: 100, y: 100 });
    await settle();
    expect(hand.lines[0].runs[0]).toMatchObject({ closed: true, nodes: { length: 3 } });
    expect(hand.lines[0].runs[0].nodes[0].in).toEqual({ x: 0, y: 30 });
  });

  it('without a picture it says so and switches itself off', () => {
    prefer({ follow: true });
    const hand = new Hand(
      benchWith(),
      (r) =>
        new PenTool(
          r,
          follow(() => null),
        ),
    );
    hand.hover({ x: 1, y: 1 });
    expect(preferences.getState().follow).toBe(false);
    expect(hand.bench.getState().message?.text).toMatch(/no picture/);
  });
});

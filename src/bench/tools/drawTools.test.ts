import type { Line, Node, Point } from '@/core';
import { cubicsOfStroke } from '@/core/assist/pencilStroke';
import { addLine } from '@/core/edits/lines';
import { ellipse } from '@/core/drawing/shapes';
import { cornerAt, cubicsOf, nearestOnLine, skeletonBox } from '@/core/drawing/run';
import { firstStyle } from '@/core/drawing/schema';
import { evaluate } from '@/core/geometry/cubic';
import { distance } from '@/core/geometry/point';
import { seeded } from '@/core/seeded';
import { drawnOf } from '../state/fitting';
import { firstPreferences, prefer } from '../state/preferences';
import { benchWith, Hand } from '../test/hand';
import { BendTool } from './bendTool';
import { PencilTool } from './pencilTool';
import { ShapeTool } from './shapeTool';

const at = (x: number, y: number, rest: Partial<Node> = {}): Node => ({ ...cornerAt({ x, y }), ...rest });
const settle = (): Promise<void> => new Promise((done) => setTimeout(done, 0));
const straightLine: Line = {
  id: 'a',
  style: firstStyle,
  runs: [{ closed: false, nodes: [at(100, 100), at(300, 100)] }],
};

beforeEach(() => prefer(firstPreferences));

describe('bend', () => {
  function bending() {
    const hand = new Hand(benchWith(), (r) => new BendTool(r));
    hand.bench.commit(addLine(hand.bench.getState().drawing, 's0', straightLine));
    return hand;
  }

  it('takes a straight segment through the pointer in one undo step', () => {
    const hand = bending();
    hand.drag({ x: 180, y: 102 }, { x: 190, y: 162 });
    expect(nearestOnLine(hand.lines[0], { x: 190, y: 160 })!.distance).toBeLessThan(1e-6);
    expect([...hand.bench.getState().lines]).toEqual(['a']);
    hand.bench.undo();
    expect(hand.lines[0]).toEqual(straightLine);
  });

  it('bends evenly with Shift, and Escape leaves it as it was', () => {
    const hand = bending();
    hand.drag({ x: 180, y: 100 }, { x: 180, y: 150 }, { shift: true });
    const [a, b] = hand.lines[0].runs[0].nodes;
    expect(a.out!.y).toBeCloseTo(b.in!.y, 9);
    const before = hand.lines[0];
    hand.press({ x: 180, y: 150 });
    hand.move({ x: 180, y: 250 });
    hand.key('Escape');
    expect(hand.lines[0]).toBe(before);
    expect(hand.bench.getState().preview).toBeNull();
  });
});

describe('pencil', () => {
  const pencil = () =>
    new Hand(benchWith(), (r) => new PencilTool(r, (s, tolerance) => Promise.resolve(cubicsOfStroke(s, tolerance))));
  const random = seeded(7);
  const noisy = (p: Point): Point => ({ x: p.x + random() - 0.5, y: p.y + random() - 0.5 });
  const arc = (from: number, to: number, radius = 100): Point[] =>
    Array.from({ length: 81 }, (_, i) => {
      const a = ((from + ((to - from) * i) / 80) * Math.PI) / 180;
      return noisy({ x: 400 + radius * Math.cos(a), y: 300 + radius * Math.sin(a) });
    });

  it('makes a line of few nodes that stays where the hand was, one undo step, in the style of the sheet', async () => {
    const hand = pencil();
    const points = arc(180, 360);
    hand.stroke(points);
    await settle();
    const [line] = hand.lines;
    expect(line.runs[0].nodes.length).toBeLessThanOrEqual(5);
    for (const p of points) expect(nearestOnLine(line, p)!.distance).toBeLessThan(3);
    expect(line.style).toEqual({ ...hand.bench.getState().drawing.sheets[0].style, fill: null });
    expect(drawnOf(line)?.stroke.points).toHaveLength(points.length);
    hand.bench.undo();
    expect(hand.lines).toEqual([]);
  });

  it('closes when it comes back to its start; a press that stays is nothing', async () => {
    const hand = pencil();
    hand.stroke(arc(0, 357));
    hand.click({ x: 700, y: 500 });
    await settle();
    expect(hand.lines).toHaveLength(1);
    expect(hand.lines[0].runs[0].closed).toBe(true);
  });

  it('draws its ends to lines that are near, unless Ctrl is held', async () => {
    const hand = pencil();
    hand.bench.commit(addLine(hand.bench.getState().drawing, 's0', straightLine));
    hand.stroke([
      { x: 200, y: 105 },
      { x: 210, y: 160 },
      { x: 240, y: 220 },
      { x: 250, y: 300 },
    ]);
    hand.bench.choose([]);
    hand.stroke(
      [
        { x: 200, y: 105 },
        { x: 190, y: 160 },
        { x: 150, y: 220 },
        { x: 150, y: 300 },
      ],
      { mod: true },
    );
    await settle();
    expect(hand.lines[1].runs[0].nodes[0].point.y).toBeCloseTo(100, 6);
    expect(hand.lines[2].runs[0].nodes[0].point.y).toBeCloseTo(105, 0);
  });

  it('redraws the part of the chosen line that it runs along; across it, it draws another', async () => {
    const hand = pencil();
    const ring: Line = { id: 'r', style: firstStyle, runs: [ellipse({ minX: 300, minY: 200, maxX: 500, maxY: 400 })] };
    hand.bench.commit(addLine(hand.bench.getState().drawing, 's0', ring));
    hand.bench.choose(['r']);
    // Out along the lower right, bulging outwards.
    const bulge = Array.from({ length: 81 }, (_, i) => {
      const a = (i / 80) * (Math.PI / 2);
      const r = 100 + 40 * Math.sin(2 * a) ** 2;
      return { x: 400 + r * Math.cos(a), y: 300 + r * Math.sin(a) };
    });
    hand.stroke(bulge, { alt: true });
    await settle();
    expect(hand.lines).toHaveLength(1);
    const [redrawn] = hand.lines;
    expect(redrawn.runs[0].closed).toBe(true);
    expect(nearestOnLine(redrawn, { x: 400 + 140 * Math.SQRT1_2, y: 300 + 140 * Math.SQRT1_2 })!.distance).toBeLessThan(
      3,
    );
    expect(nearestOnLine(redrawn, { x: 300, y: 300 })!.distance).toBeLessThan(0.5);
    hand.bench.choose(['r']);
    hand.stroke([0, 50, 100, 150, 200].map((k) => ({ x: 400, y: 200 + k })));
    await settle();
    expect(hand.lines).toHaveLength(2);
  });

  it.each([2, 5, 7])('hatching %i px apart is strokes, each where the hand was', async (apart) => {
    const hand = pencil();
    const strokes = Array.from({ length: 30 }, (_, i) =>
      Array.from({ length: 21 }, (__, k) => noisy({ x: 200 + 4 * k, y: 150 + apart * i + 2 * k })),
    );
    for (const s of strokes) {
      hand.stroke(strokes.indexOf(s) % 2 ? s.toReversed() : s);
      await settle();
    }
    expect(hand.lines).toHaveLength(30);
    hand.lines.forEach((l, n) => {
      const [first, last] = [l.runs[0].nodes[0].point, l.runs[0].nodes.at(-1)!.point];
      const [from, to] = n % 2 ? [last, first] : [first, last];
      expect(l.runs[0].closed).toBe(false);
      expect(Math.max(distance(from, strokes[n][0]), distance(to, strokes[n].at(-1)!))).toBeLessThan(2);
    });
  });

  it('redraws without Alt only while that is switched on', async () => {
    const over = [0, 1, 2, 3, 4].map((k) => ({ x: 110 + 45 * k, y: 100 + 6 * Math.sin(k) }));
    const drawn = async (): Promise<number> => {
      const hand = pencil();
      hand.bench.commit(addLine(hand.bench.getState().drawing, 's0', straightLine));
      hand.bench.choose(['a']);
      hand.stroke(over);
      await settle();
      return hand.lines.length;
    };
    expect(await drawn()).toBe(2);
    prefer({ redraw: true });
    expect(await drawn()).toBe(1);
  });

  it('keeps a pen’s pressure as width marks, and a mouse’s or with that off not', async () => {
    const hand = pencil();
    const draw = (kind: 'pen' | 'mouse'): void => {
      const points = arc(180, 360);
      hand.press(points[0], { kind, pressure: 0.05 });
      points.forEach((p, i) => hand.move(p, { kind, pressure: Math.sin((Math.PI * i) / 80) }));
      hand.release(points.at(-1)!, { kind, mod: true });
    };
    draw('pen');
    draw('mouse');
    prefer({ pressure: false });
    draw('pen');
    await settle();
    const [pressed, ...plain] = hand.lines;
    const halves = pressed.marks!.map((m) => m.left);
    expect(Math.max(...halves)).toBeGreaterThan(3 * halves[0]);
    expect(plain.map((l) => l.marks)).toEqual([undefined, undefined]);
  });

  it('keeps a stroke as it was drawn when it cannot be fitted', async () => {
    const hand = new Hand(benchWith(), (r) => new PencilTool(r, () => Promise.reject(new Error('no worker'))));
    hand.stroke(arc(180, 270));
    await settle();
    expect(hand.lines[0].runs[0].nodes).toHaveLength(81);
    expect(hand.bench.getState().message?.text).toContain('no worker');
  });
});

describe('shapes', () => {
  const shaping = () => new Hand(benchWith(), (r) => new ShapeTool(r));
  const boxOf = (l: Line): number[] => {
    const b = skeletonBox(l);
    return [b.minX, b.minY, b.maxX, b.maxY].map((v) => Math.round(v * 1000) / 1000);
  };

  it('are dragged from corner to corner, with Alt from the middle, with Shift with equal sides', () => {
    const hand = shaping();
    hand.drag({ x: 100, y: 100 }, { x: 180, y: 140 });
    hand.drag({ x: 300, y: 300 }, { x: 340, y: 320 }, { alt: true });
    hand.drag({ x: 500, y: 300 }, { x: 440, y: 320 }, { shift: true });
    expect(hand.lines.map(boxOf)).toEqual([
      [100, 100, 180, 140],
      [260, 280, 340, 320],
      [440, 300, 500, 360],
    ]);
    hand.bench.undo();
    expect(hand.lines).toHaveLength(2);
  });

  it('a click lays one of the size that is typed', () => {
    const hand = shaping();
    prefer({ shape: { ...firstPreferences.shape, kind: 'rectangle', width: 70, height: 30 } });
    hand.click({ x: 200, y: 200 });
    hand.click({ x: 400, y: 400 }, { alt: true });
    expect(hand.lines.map(boxOf)).toEqual([
      [200, 200, 270, 230],
      [365, 385, 435, 415],
    ]);
  });

  it('a polygon from the middle turns its first corner to the hand', () => {
    const hand = shaping();
    prefer({ shape: { ...firstPreferences.shape, kind: 'polygon', sides: 6 } });
    hand.drag({ x: 300, y: 300 }, { x: 340, y: 330 }, { alt: true });
    const { nodes } = hand.lines[0].runs[0];
    expect(nodes[0].point).toEqual({ x: expect.closeTo(340), y: expect.closeTo(330) });
    expect(nodes.map((n) => distance(n.point, { x: 300, y: 300 }))).toEqual(nodes.map(() => expect.closeTo(50)));
  });

  it('corners are rounded by dragging, all of them or one, and stay so when the line is moved', () => {
    const hand = shaping();
    prefer({ shape: { ...firstPreferences.shape, kind: 'rectangle' } });
    hand.drag({ x: 100, y: 100 }, { x: 300, y: 200 });
    // The grip of a sharp corner lies a little inside.
    const grip = { x: 100 + 18 * Math.SQRT1_2, y: 100 + 18 * Math.SQRT1_2 };
    hand.drag(grip, { x: 120, y: 120 });
    const radii = () => hand.lines[0].runs[0].nodes.map((n) => Math.round(n.radius ?? 0));
    expect(radii()).toEqual([20, 20, 20, 20]);
    hand.drag({ x: 120, y: 120 }, { x: 140, y: 140 }, { alt: true });
    expect(radii()).toEqual([40, 20, 20, 20]);
    expect(hand.lines).toHaveLength(1);
  });

  it('an ellipse is a line like any other: four smooth nodes on it', () => {
    const hand = shaping();
    hand.drag({ x: 100, y: 100 }, { x: 300, y: 200 });
    const [run] = hand.lines[0].runs;
    expect(run.nodes.map((n) => n.kind)).toEqual(['smooth', 'smooth', 'smooth', 'smooth']);
    for (const c of cubicsOf(run)) {
      const p = evaluate(c, 0.5);
      expect(Math.hypot((p.x - 200) / 100, (p.y - 150) / 50)).toBeCloseTo(1, 3);
    }
  });
});

import { cubicAt } from '../index';
import { distance, type Point } from '../geometry/point';
import { roundingOf, shownCubics } from './rounding';
import { arc, ellipse, polygon, rectangle, star } from './shapes';
import { skeletonBox } from './run';
import { runSchema, type Run } from './schema';

const box = { minX: 10, minY: 20, maxX: 110, maxY: 80 };
const shares = Array.from({ length: 21 }, (_, i) => i / 20);
const samples = (run: Run): Point[] => shownCubics(run).flatMap((c) => shares.map((t) => cubicAt(c, t)));

describe('shapes', () => {
  it('are runs of ordinary nodes', () => {
    const all = [
      rectangle(box, 5),
      ellipse(box),
      arc(box, 0, 90),
      polygon({ x: 0, y: 0 }, 10, 5),
      star({ x: 0, y: 0 }, 10, 5, 0.4),
    ];
    expect(all.map((r) => runSchema.safeParse(r).success)).toEqual(all.map(() => true));
    expect(all.map((r) => r.nodes.length)).toEqual([4, 4, 2, 5, 10]);
    expect(all.map((r) => r.closed)).toEqual([true, true, false, true, true]);
  });

  it('an ellipse lies on the ellipse and fills its box', () => {
    for (const p of samples(ellipse(box))) expect(Math.hypot((p.x - 60) / 50, (p.y - 50) / 30)).toBeCloseTo(1, 3);
    const around = skeletonBox({ runs: [ellipse(box)] });
    for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(around[side]).toBeCloseTo(box[side], 9);
    expect(ellipse(box).nodes.every((n) => n.kind === 'smooth')).toBe(true);
  });

  it('an arc runs clockwise from one angle to the other, past nought as well', () => {
    const ends = (from: number, to: number): Point[] => {
      const { nodes } = arc({ minX: -10, minY: -10, maxX: 10, maxY: 10 }, from, to);
      return [nodes[0].point, nodes.at(-1)!.point].map((p) => ({ x: Math.round(p.x) + 0, y: Math.round(p.y) + 0 }));
    };
    expect(ends(0, 90)).toEqual([
      { x: 10, y: 0 },
      { x: 0, y: 10 },
    ]);
    expect(ends(270, 90)).toEqual([
      { x: 0, y: -10 },
      { x: 0, y: 10 },
    ]);
    const half = arc({ minX: -10, minY: -10, maxX: 10, maxY: 10 }, 270, 90);
    expect(Math.max(...samples(half).map((p) => p.x))).toBeCloseTo(10, 2);
  });

  it('a polygon stands on its circle, a star in turn on two', () => {
    const middle = { x: 3, y: 4 };
    const six = polygon(middle, 10, 6);
    expect(six.nodes.map((n) => distance(n.point, middle))).toEqual(six.nodes.map(() => expect.closeTo(10, 9)));
    expect(six.nodes[0].point).toEqual({ x: expect.closeTo(3, 9), y: expect.closeTo(-6, 9) });
    const radii = star(middle, 10, 5, 0.4).nodes.map((n) => distance(n.point, middle));
    expect(radii).toEqual(radii.map((_, i) => expect.closeTo(i % 2 === 0 ? 10 : 4, 9)));
  });
});

describe('rounded corners', () => {
  it('run as arcs of the radius, touching both sides; the nodes stay where they are', () => {
    const run = rectangle(box, 12);
    const middle = { x: 22, y: 32 };
    const arcPoints = roundingOf(run, 0)!.cubics.flatMap((c) => shares.map((t) => cubicAt(c, t)));
    for (const p of arcPoints) expect(distance(p, middle)).toBeCloseTo(12, 2);
    expect(run.nodes[0].point).toEqual({ x: 10, y: 20 });
    // Nothing of the drawn line lies outside the box, and it no longer reaches the corner.
    for (const p of samples(run)) {
      expect(p.x).toBeGreaterThanOrEqual(box.minX - 1e-9);
      expect(distance(p, run.nodes[0].point)).toBeGreaterThan(12 * (Math.SQRT2 - 1) - 0.01);
    }
  });

  it('are drawn smaller where a side is too short for the radius, and the line stays one', () => {
    const run = rectangle(box, 500);
    const cubics = shownCubics(run);
    cubics.forEach((c, i) => expect(distance(c[3], cubics[(i + 1) % cubics.length][0])).toBeLessThan(1e-9));
    for (const p of samples(run)) {
      expect(p.y).toBeGreaterThanOrEqual(box.minY - 1e-6);
      expect(p.y).toBeLessThanOrEqual(box.maxY + 1e-6);
    }
  });

  it('are left out at curves, at ends, and where a line does not turn', () => {
    const open: Run = { closed: false, nodes: rectangle(box, 12).nodes };
    expect(roundingOf(open, 0)).toBeNull();
    expect(roundingOf(open, 3)).toBeNull();
    expect(roundingOf(open, 1)).not.toBeNull();
    const level = [0, 10, 20].map((x) => ({
      point: { x, y: 0 },
      in: null,
      out: null,
      kind: 'corner' as const,
      radius: 4,
    }));
    expect(roundingOf({ closed: false, nodes: level }, 1)).toBeNull();
    const curved = rectangle(box, 12);
    const nodes = curved.nodes.map((n, i) => (i === 1 ? { ...n, in: { x: -20, y: -10 } } : n));
    expect(roundingOf({ closed: true, nodes }, 0)).toBeNull();
  });
});

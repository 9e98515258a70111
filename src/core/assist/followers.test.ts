import fc from 'fast-check';
import { cubicAt, type Cubic, type GrayImage, type Point } from '../index';
import { grayImage } from '../raster/grayImage';
import { distance } from '../geometry/point';
import { seeded } from '../seeded';
import { EdgeFollower } from './edgeFollower';
import { InkFollower } from './inkFollower';
import { MinimalPath, STEPS } from './minimalPath';

/** A picture of strokes, given by how far a place is from their middles, with the paper's grain. */
function drawn(width: number, height: number, ...strokes: ((p: Point) => number)[]): GrayImage {
  const image = grayImage(width, height);
  const random = seeded(5);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const off = Math.min(...strokes.map((s) => s({ x: x + 0.5, y: y + 0.5 })));
      const ink = Math.min(1, Math.max(0, 3.5 - off));
      image.data[y * width + x] = Math.round(232 - 150 * ink + 8 * (random() - 0.5));
    }
  return image;
}
const segment =
  (a: Point, b: Point) =>
  (p: Point): number => {
    const t = ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / distance(a, b) ** 2;
    const k = Math.min(1, Math.max(0, t));
    return distance(p, { x: a.x + (b.x - a.x) * k, y: a.y + (b.y - a.y) * k });
  };
const ring =
  (c: Point, r: number) =>
  (p: Point): number =>
    Math.abs(distance(p, c) - r);
const samples = (cubics: readonly Cubic[]): Point[] =>
  cubics.flatMap((c) => Array.from({ length: 41 }, (_, i) => cubicAt(c, i / 40)));

describe('following ink', () => {
  const middle = { x: 200, y: 200 };
  const circle = new InkFollower(drawn(400, 400, ring(middle, 120)));

  it('runs along the middle of a stroke, in few cubics, from the very place that it is followed from', () => {
    const from = { x: 81, y: 203 };
    const cubics = circle.path(from, { x: 205, y: 83 })!;
    expect(cubics[0][0]).toEqual(from);
    expect(cubics.length).toBeLessThanOrEqual(3);
    for (const p of samples(cubics).slice(20)) expect(Math.abs(distance(p, middle) - 120)).toBeLessThan(1.2);
  });

  it('goes the way that the hand went, where there are two', () => {
    const from = { x: 80, y: 200 };
    // All the way to the far side: above and below are as long. The hand goes above, the second time below.
    for (const up of [-1, 1]) {
      const start = { x: from.x, y: from.y + 0.001 * up };
      let cubics: Cubic[] | null = null;
      for (let a = 8; a <= 180; a += 8)
        cubics = circle.path(start, {
          x: 200 - 120 * Math.cos((a * Math.PI) / 180),
          y: 200 + up * 120 * Math.sin((a * Math.PI) / 180),
        });
      const mean = samples(cubics!).reduce((sum, p) => sum + p.y, 0) / samples(cubics!).length;
      expect(Math.sign(mean - 200)).toBe(up);
    }
  });

  it('goes straight on over a crossing, also a shallow one', () => {
    for (const slope of [1.2, 0.22]) {
      const [a, b] = [
        { x: 20, y: 150 },
        { x: 380, y: 150 },
      ];
      const [c, d] = [
        { x: 30, y: 150 - 170 * slope },
        { x: 370, y: 150 + 170 * slope },
      ];
      const follower = new InkFollower(drawn(400, 300, segment(a, b), segment(c, d)));
      let cubics: Cubic[] | null = null;
      for (let x = 60; x <= 340; x += 20) cubics = follower.path({ x: 50, y: 150 }, { x, y: 151 });
      const off = samples(cubics!).map((p) => Math.abs(p.y - 150));
      expect(Math.max(...off)).toBeLessThan(2);
      expect(off.filter((o) => o > 1.5).length).toBeLessThan(0.05 * off.length);
    }
  });

  it('has nothing to say outside of the picture, nor for a place that it starts from', () => {
    expect(circle.path({ x: -5, y: 5 }, { x: 100, y: 100 })).toBeNull();
    expect(circle.path({ x: 80, y: 200 }, { x: 80, y: 200 })).toBeNull();
  });
});

test('in a photo it runs along the edge of a tone', () => {
  const image = grayImage(300, 300);
  for (let y = 0; y < 300; y++)
    for (let x = 0; x < 300; x++)
      image.data[y * 300 + x] =
        90 + 110 / (1 + Math.exp((100 - distance({ x: x + 0.5, y: y + 0.5 }, { x: 150, y: 150 })) / 2));
  const follower = new EdgeFollower(image);
  const cubics = follower.path({ x: 50, y: 150 }, { x: 150, y: 50 })!;
  for (const p of samples(cubics).slice(10, -10))
    expect(Math.abs(distance(p, { x: 150, y: 150 }) - 100)).toBeLessThan(1.5);
});

test('the cheapest way is as cheap as any, against plain relaxation', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 48, maxLength: 48 }),
      fc.nat(47),
      fc.nat(47),
      (cost, a, b) => {
        const [width, height] = [8, 6];
        const step = (to: number, d: number): number => Math.round(cost[to] * Math.hypot(...STEPS[d]) * 4);
        const search = new MinimalPath(width, height, step);
        search.from(a);
        const path = search.to(b, 1000)!;
        const neighbours = (i: number) =>
          STEPS.flatMap(([dx, dy], d) => {
            const [x, y] = [(i % width) + dx, Math.floor(i / width) + dy];
            return x < 0 || y < 0 || x >= width || y >= height ? [] : [{ j: y * width + x, d }];
          });
        const least = Array.from({ length: 48 }, (_, i) => (i === a ? 0 : Infinity));
        for (let k = 0; k < 48; k++)
          for (let i = 0; i < 48; i++)
            for (const { j, d } of neighbours(i)) least[j] = Math.min(least[j], least[i] + step(j, d));
        const along = path.slice(1).reduce((sum, i, k) => {
          const { d } = neighbours(path[k]).find((n) => n.j === i)!;
          return sum + step(i, d);
        }, 0);
        expect([path[0], path.at(-1)]).toEqual([a, b]);
        expect(along).toBe(least[b]);
      },
    ),
  );
  const search = new MinimalPath(100, 100, () => 10);
  search.from(0);
  expect(search.to(9999, 50)).toBeNull();
  expect(search.to(9999, 20_000)).toHaveLength(100);
});

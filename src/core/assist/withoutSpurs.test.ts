import fc from 'fast-check';
import { distance, type Point } from '../geometry/point';
import { withoutSpurs } from './withoutSpurs';

const arc = (radius: number): Point[] =>
  Array.from({ length: 120 }, (_, i) => {
    const a = (2 * i) / radius;
    return { x: radius * Math.sin(a), y: radius * (1 - Math.cos(a)) };
  });
/** How far a place lies from an arc of a radius. */
const offArc = (p: Point, radius: number): number => Math.abs(distance(p, { x: 0, y: radius }) - radius);

test('a spur on a gentle way is taken away wherever it lies, and what is left goes on as before, without a gap', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 20, max: 95 }),
      fc.double({ min: 1.8, max: 3.5, noNaN: true }),
      fc.boolean(),
      fc.integer({ min: 250, max: 2_000 }),
      (at, high, inwards, radius) => {
        const way = arc(radius).map((p, i) => {
          const by = high * Math.max(0, 1 - Math.abs(i - at) / 1.5) * (inwards ? -1 : 1);
          return { x: p.x + (by * p.x) / radius, y: p.y + (by * (p.y - radius)) / radius };
        });
        const kept = withoutSpurs(way);
        for (const p of kept) expect(offArc(p, radius)).toBeLessThan(0.8);
        for (let i = 1; i < kept.length; i++) expect(distance(kept[i - 1], kept[i])).toBeLessThan(4);
        expect([kept[0], kept.at(-1)]).toEqual([way[0], way.at(-1)]);
      },
    ),
    { numRuns: 60 },
  );
});

test('corners, bends and short ways stay as they are', () => {
  const corner = (degrees: number): Point[] => {
    const a = (degrees * Math.PI) / 180;
    const [x, y] = [Math.cos(a), Math.sin(a)];
    return Array.from({ length: 61 }, (_, i) =>
      i <= 30 ? { x: 2 * i, y: 0 } : { x: 60 + 2 * (i - 30) * x, y: 2 * (i - 30) * y },
    );
  };
  for (const degrees of [25, 40, 90, 150]) expect(withoutSpurs(corner(degrees))).toEqual(corner(degrees));
  for (const radius of [8, 15, 60]) expect(withoutSpurs(arc(radius))).toEqual(arc(radius));
  const zigzag = Array.from({ length: 90 }, (_, i) => ({ x: 2 * i, y: 12 * Math.abs(((i / 15) % 2) - 1) }));
  expect(withoutSpurs(zigzag)).toEqual(zigzag);
  expect(withoutSpurs([{ x: 0, y: 0 }])).toEqual([{ x: 0, y: 0 }]);
});

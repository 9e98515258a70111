import fc from 'fast-check';
import { frameGrips, frameMap, placeInBox, type FrameGrip } from './frame';
import { mapPoint } from './matrix';
import { add, distance, subtract, type Box, type Point } from './point';

const free = { keep: false, steps: false, aboutOrigin: false };
const c = fc.double({ min: -300, max: 300, noNaN: true });
const place: fc.Arbitrary<Point> = fc.record({ x: c, y: c });
const size = fc.double({ min: 1, max: 200, noNaN: true });
const boxes: fc.Arbitrary<Box> = fc
  .tuple(c, c, size, size)
  .map(([minX, minY, w, h]) => ({ minX, minY, maxX: minX + w, maxY: minY + h }));
const end = fc.constantFrom(-1 as const, 1 as const);
const cornerOf = (b: Box, x: number, y: number): Point => placeInBox(b, { x: (x + 1) / 2, y: (y + 1) / 2 });
const near = (a: Point, b: Point): void =>
  expect(distance(a, b)).toBeLessThan(1e-6 * (1 + distance(a, { x: 0, y: 0 })));

test('a dragged corner goes where the hand goes, and the opposite one stays; with the origin held, that stays', () => {
  fc.assert(
    fc.property(boxes, end, end, place, place, place, (b, x, y, from, by, origin) => {
      const corner = cornerOf(b, x, y);
      const opposite = cornerOf(b, -x, -y);
      const wanted = add(corner, by);
      fc.pre(Math.abs(wanted.x - opposite.x) > 0.02 * (b.maxX - b.minX));
      fc.pre(Math.abs(wanted.y - opposite.y) > 0.02 * (b.maxY - b.minY));
      const { map } = frameMap({ deed: 'scale', x, y }, b, [from, add(from, by)], origin, free);
      near(mapPoint(map, corner), wanted);
      near(mapPoint(map, opposite), opposite);
      const about = frameMap({ deed: 'scale', x, y }, b, [from, add(from, by)], origin, { ...free, aboutOrigin: true });
      near(mapPoint(about.map, origin), origin);
      const kept = frameMap({ deed: 'scale', x, y }, b, [from, add(from, by)], origin, { ...free, keep: true });
      expect(kept.figures[0]).toBe(kept.figures[1]);
    }),
  );
});

test('a dragged side moves that side alone', () => {
  fc.assert(
    fc.property(boxes, end, c, (b, x, by) => {
      const side = cornerOf(b, x, 0).x;
      fc.pre(Math.abs(side + by - cornerOf(b, -x, 0).x) > 0.02 * (b.maxX - b.minX));
      const { map, figures } = frameMap(
        { deed: 'scale', x, y: 0 },
        b,
        [
          { x: 0, y: 0 },
          { x: by, y: 77 },
        ],
        { x: 0, y: 0 },
        free,
      );
      const p = mapPoint(map, { x: side, y: b.minY });
      near(p, { x: side + by, y: b.minY });
      expect(figures[1]).toBe(1);
    }),
  );
});

test('a turn keeps lengths and the origin, and the hand stays over what it took; in steps it is one of 15°', () => {
  fc.assert(
    fc.property(boxes, place, place, place, (b, from, to, origin) => {
      fc.pre(distance(from, origin) > 1 && distance(to, origin) > 1);
      const grip: FrameGrip = { deed: 'turn', x: 1, y: 1 };
      const { map, figures } = frameMap(grip, b, [from, to], origin, free);
      near(mapPoint(map, origin), origin);
      const q = subtract(mapPoint(map, from), origin);
      const t = subtract(to, origin);
      expect(Math.abs(q.x * t.y - q.y * t.x)).toBeLessThan(1e-6 * distance(from, origin) * distance(to, origin));
      expect(figures[0]).toBeGreaterThan(-180 - 1e-9);
      expect(figures[0]).toBeLessThanOrEqual(180 + 1e-9);
      const [step] = frameMap(grip, b, [from, to], origin, { ...free, steps: true }).figures;
      expect(Math.abs(step / 15 - Math.round(step / 15))).toBeLessThan(1e-9);
    }),
  );
});

test('a slant moves the grip’s side along itself by what the hand went, up to 80°', () => {
  const b = { minX: 100, minY: 100, maxX: 200, maxY: 160 };
  const origin = { x: 150, y: 160 };
  const { map } = frameMap(
    { deed: 'slant', axis: 'across' },
    b,
    [
      { x: 150, y: 70 },
      { x: 180, y: 90 },
    ],
    origin,
    free,
  );
  near(mapPoint(map, { x: 100, y: 100 }), { x: 130, y: 100 });
  near(mapPoint(map, { x: 100, y: 160 }), { x: 100, y: 160 });
  const far = frameMap(
    { deed: 'slant', axis: 'down' },
    b,
    [
      { x: 230, y: 0 },
      { x: 230, y: 9000 },
    ],
    origin,
    free,
  );
  expect(far.figures[0]).toBe(80);
});

test('what has no height has no grips that would need one, and an origin on the side itself changes nothing', () => {
  const flat = { minX: 10, minY: 50, maxX: 110, maxY: 50 };
  const deeds = frameGrips(flat, 12, 14).map(({ grip }) => (grip.deed === 'slant' ? grip.axis : grip.deed));
  expect(deeds.filter((d) => d === 'scale')).toHaveLength(2);
  expect(deeds).not.toContain('across');
  const b = { minX: 0, minY: 0, maxX: 10, maxY: 10 };
  const held = { ...free, aboutOrigin: true };
  const { figures } = frameMap(
    { deed: 'scale', x: 1, y: 0 },
    b,
    [
      { x: 10, y: 5 },
      { x: 30, y: 5 },
    ],
    { x: 10, y: 5 },
    held,
  );
  expect(figures).toEqual([1, 1]);
});

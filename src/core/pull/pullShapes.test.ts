import fc from 'fast-check';
import { pullShapes, type Cubic } from '..';
import { reversed } from '../geometry/cubic';
import { labDistance, labOf, type Lab } from '../colour/oklab';
import { photo, photos, plain, textured } from '../test/photo';
import { distanceToCurves, walk } from '../test/strokes';
import { sharedBorders } from './sharedBorders';

const options = { colours: 4, smallest: 120, tolerance: 1 };
const keyOf = ([a, b, c, d]: Cubic): string => [a, b, c, d].map((p) => `${p.x},${p.y}`).join(' ');

/** Every stretch is run along by two areas, one each way, or lies on the picture's rim; loops are closed. */
function expectShared(shapes: readonly { loops: Cubic[][] }[], width: number, height: number): void {
  const stretches = new Map<string, number>();
  for (const { loops } of shapes)
    for (const loop of loops) {
      loop.forEach((c, i) => expect(c[3]).toEqual(loop[(i + 1) % loop.length][0]));
      for (const c of loop) stretches.set(keyOf(c), (stretches.get(keyOf(c)) ?? 0) + 1);
    }
  const isOn = (v: number, rim: number): boolean => v === 0 || v === rim;
  for (const { loops } of shapes)
    for (const c of loops.flat()) {
      expect(stretches.get(keyOf(c))).toBe(1);
      const isRim = [c[0], c[3]].every((p) => isOn(p.x, width)) || [c[0], c[3]].every((p) => isOn(p.y, height));
      if (!isRim) expect(stretches.get(keyOf(reversed(c)))).toBe(1);
    }
}

test.each(photos().map((p) => [p.name, p] as const))(
  'things are shapes of their own: %s',
  (name, { image, outlines }) => {
    const shapes = pullShapes(image, { ...options, colours: 6 });
    const { width, height } = image;
    expect(shapes.reduce((sum, s) => sum + s.area, 0)).toBeCloseTo(width * height, 3);
    expect(shapes.every((s, i) => s.area >= 60 && (i === 0 || s.area <= shapes[i - 1].area))).toBe(true);
    expectShared(shapes, width, height);
    // Each outline is the border of something, nearly all along.
    const borders = shapes.flatMap((s) => s.loops.flat());
    for (const truth of outlines) {
      const off = walk(truth, 3).map((p) => distanceToCurves(borders, p));
      // What is out of focus has no sharp border.
      const near = name === 'out of focus' ? 3 : 1.5;
      expect(off.filter((d) => d <= near).length / off.length).toBeGreaterThan(0.95);
    }
    expect(borders.length).toBeLessThan(110);
  },
);

test('shapes have the colours of the picture; texture is none of their own; what is small is left out', () => {
  const [ground, thing]: Lab[] = [
    [0.7, -0.02, 0.05],
    [0.5, 0.08, 0.04],
  ];
  const square = (x: number, y: number, by: number): Cubic[] => {
    const at = [
      [x, y],
      [x + by, y],
      [x + by, y + by],
      [x, y + by],
    ].map(([px, py]) => ({ x: px, y: py }));
    return at.map((p, i): Cubic => [p, p, at[(i + 1) % 4], at[(i + 1) % 4]]);
  };
  const things = [square(60, 60, 120), square(300, 200, 8)].map((outline) => ({ outline, tint: plain(thing) }));
  const image = photo(400, 300, textured(ground, 0.05, 9, 4), things, { blur: 0.7, noise: 4, seed: 3 });
  const shapes = pullShapes(image, { colours: 2, smallest: 200, tolerance: 1 });
  expect(shapes).toHaveLength(2);
  expect(shapes[0].loops).toHaveLength(2);
  expect(Math.abs(shapes[1].area - 120 * 120)).toBeLessThan(250);
  for (const [i, truth] of [ground, thing].entries())
    expect(labDistance(labOf(...shapes[i].colour), truth)).toBeLessThan(0.02);
  expect(pullShapes(image, { colours: 2, smallest: 30, tolerance: 1 })).toHaveLength(3);
});

test('any map of areas comes out whole: borders are shared, and all of it is covered', () => {
  const maps = fc.record({
    width: fc.integer({ min: 1, max: 9 }),
    height: fc.integer({ min: 1, max: 9 }),
    colour: fc.uint8Array({ min: 0, max: 2, minLength: 81, maxLength: 81 }),
  });
  fc.assert(
    fc.property(maps, ({ width, height, colour }) => {
      const own = colour.slice(0, width * height);
      const firm = new Uint8Array(own.length).fill(1);
      const areas = sharedBorders({ width, height, colour: own, firm }, 1, 0.3);
      for (const { loops } of areas)
        for (const loop of loops) loop.forEach((c, i) => expect(c[3]).toEqual(loop[(i + 1) % loop.length][0]));
      const stretches = areas.flatMap((a) => a.loops.flat()).map(keyOf);
      expect(new Set(stretches).size).toBe(stretches.length);
    }),
    { numRuns: 300 },
  );
});

test('progress is told and can break it off; bad options are refused', () => {
  const { image } = photos()[0];
  const told: number[] = [];
  pullShapes(image, options, (share) => told.push(share));
  expect(told[0]).toBe(0);
  expect(told.at(-1)).toBe(1);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  const stop = (share: number): void => {
    if (share > 0.2) throw new Error('called off');
  };
  expect(() => pullShapes(image, options, stop)).toThrow('called off');
  for (const bad of [{ colours: 0 }, { colours: 2.5 }, { smallest: -1 }, { smallest: NaN }, { tolerance: 0 }])
    expect(() => pullShapes(image, { ...options, ...bad })).toThrow(RangeError);
  expect(() => pullShapes({ ...image, width: 7 }, options)).toThrow(RangeError);
});

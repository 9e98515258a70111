import fc from 'fast-check';
import type { Point } from '../geometry/point';
import { evaluate } from '../geometry/cubic';
import { isWithin } from '../geometry/polygon';
import type { ColourImage } from '../raster/colourImage';
import { seeded } from '../seeded';
import { applyChange, emptyDrawing, plainPage } from '..';
import type { Flat } from '../drawing/item';
import { takeColours } from '../edits/takeColours';
import { areaColour } from './areaColour';
import { areaMask } from '../raster/areaMask';
import { colourName } from './colourName';
import { harmony } from './harmonies';
import { labDistance, labOf, labOfHex, rgbOf, type Lab } from './oklab';
import { pullTones } from './pullTones';
import { stepOfTone, toneOf, toneOfStep, valueStep, withTone } from './tone';
import { typicalColour } from './typical';

const disc = (x: number, y: number, r: number): Point[] =>
  Array.from({ length: 90 }, (_, i) => ({ x: x + r * Math.cos(i / 14.33), y: y + r * Math.sin(i / 14.33) }));
function picture(width: number, height: number, colour: (x: number, y: number) => readonly number[]): ColourImage {
  const data = new Uint8Array(3 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      data.set(
        colour(x, y).map((v) => Math.max(0, Math.min(255, v))),
        3 * (y * width + x),
      );
  return { width, height, channels: 3, data };
}

test('a mask holds the pixels whose middles lie in an area, its holes left out', () => {
  const [outer, hole] = [disc(30, 25, 20.3), disc(33, 22, 8.4)];
  const { x, y, width, height, mask } = areaMask({ width: 60, height: 60 }, [outer, hole], 2)!;
  for (let i = 0; i < mask.length; i++) {
    const p = { x: x + (i % width) + 0.5, y: y + Math.floor(i / width) + 0.5 };
    expect(mask[i]).toBe(isWithin(p, outer) && !isWithin(p, hole) ? 1 : 0);
  }
  expect(height).toBeGreaterThan(40);
  expect(areaMask({ width: 60, height: 60 }, [disc(200, 25, 20)])).toBeNull();
});

test('the colour of an area: not that of its border, of ink across it, of a glint, or of noise', () => {
  const [leaf, ink] = [
    [96, 130, 60],
    [30, 28, 26],
  ];
  const random = seeded(4);
  const image = picture(120, 120, (x, y) => {
    const away = Math.hypot(x - 60, y - 60);
    const base = away > 38 ? ink : Math.abs(x - y) < 4 ? ink : Math.hypot(x - 48, y - 70) < 12 ? [250, 250, 240] : leaf;
    return base.map((v) => v + 14 * (random() + random() - 1));
  });
  const found = areaColour(image, [disc(60, 60, 40)])!;
  expect(labDistance(found.lab, labOf(96, 130, 60))).toBeLessThan(0.01);
  // The mean is of all of it, the glint and the ink too.
  const half = picture(40, 40, (x) => (x < 20 ? [40, 80, 120] : [200, 160, 80]));
  expect(areaColour(half, [disc(20, 20, 15)])!.mean.map(Math.round)).toEqual([120, 120, 100]);
  // A sliver has no middle: what there is of it counts.
  expect(areaColour(image, [disc(60, 40, 1.2)])).not.toBeNull();
  expect(() => areaColour({ ...image, width: 3 }, [])).toThrow(RangeError);
});

test('what is typical is where most are, whatever the rest is', () => {
  const near = (l: Lab, random: () => number): Lab => l.map((v) => v + 0.01 * (random() - 0.5)) as unknown as Lab;
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 999 }), fc.double({ min: 0, max: 0.4, noNaN: true }), (seed, share) => {
      const random = seeded(seed);
      const lab = (): Lab => [0.2 + 0.6 * random(), 0.3 * random() - 0.15, 0.3 * random() - 0.15];
      const [most, other] = [lab(), lab()];
      const all = Array.from({ length: 400 }, (_, i) => near(i < 400 * share ? other : most, random));
      const away = labDistance(typicalColour(all), most);
      return away < 0.012 || labDistance(most, other) < 0.15;
    }),
    { numRuns: 60 },
  );
  expect(() => typicalColour([])).toThrow(RangeError);
});

test('tones and steps, harmonies and names', () => {
  for (const c of ['#000000', '#ffffff', '#aa3311', '#88aadd'])
    for (const steps of [2, 5, 7]) {
      const step = valueStep(c, steps);
      expect(step).toBeGreaterThanOrEqual(1);
      expect(stepOfTone(toneOfStep(step, steps), steps)).toBe(step);
      expect(toneOf(withTone(c, toneOfStep(step, steps)))).toBeCloseTo(toneOfStep(step, steps), 1);
    }
  const [opposite] = harmony('#aa3311', 'opposite');
  expect(toneOf(opposite)).toBeCloseTo(toneOf('#aa3311'), 1);
  expect(labOfHex(opposite)[1]).toBeLessThan(0);
  expect(harmony('#808080', 'thirds')).toEqual(['#808080', '#808080']);
  expect(['#ffffff', '#101010', '#336633', '#88aadd', '#6b3a12'].map(colourName)).toEqual([
    'white',
    'black',
    expect.stringContaining('green'),
    expect.stringContaining('blue'),
    expect.stringContaining('brown'),
  ]);
});

test('tones pulled from an area: few smooth shapes, each where the picture is so', () => {
  const random = seeded(9);
  const tones = [0.35, 0.55, 0.75];
  const image = picture(200, 160, (x, y) => {
    const tone = Math.hypot(x - 70, y - 80) < 34 ? tones[0] : Math.hypot(x - 140, y - 60) < 22 ? tones[2] : tones[1];
    return rgbOf([tone, 0.05, 0.04]).map((v) => v + 10 * (random() - 0.5));
  });
  const { tone, parts } = pullTones(image, [disc(100, 80, 76)], { steps: 3, smooth: 2, tolerance: 0.8 })!;
  expect(tone).toBeCloseTo(tones[1], 1);
  expect(parts).toHaveLength(2);
  for (const [part, [x, y, r], wanted] of [
    [parts.find((p) => p.tone < tone)!, [70, 80, 34], tones[0]],
    [parts.find((p) => p.tone > tone)!, [140, 60, 22], tones[2]],
  ] as const) {
    expect(part.tone).toBeCloseTo(wanted, 1);
    expect(part.loops).toHaveLength(1);
    expect(part.loops[0].length).toBeLessThanOrEqual(12);
    for (const c of part.loops[0])
      for (const t of [0, 0.3, 0.7]) {
        const p = evaluate(c, t);
        expect(Math.abs(Math.hypot(p.x - x - 0.5, p.y - y - 0.5) - r)).toBeLessThan(2);
      }
  }
  // What is all of one tone has no parts.
  const even = picture(80, 80, () => [120, 130, 90]);
  expect(pullTones(even, [disc(40, 40, 30)], { steps: 4, smooth: 2, tolerance: 1 })!.parts).toEqual([]);
  expect(() => pullTones(even, [], { steps: 9, smooth: 2, tolerance: 1 })).toThrow(RangeError);
});

test('flats take their colours: their own, joined to few swatches, or those of the palette', () => {
  const page = plainPage({ width: 100, height: 100, unit: 'px', dpi: 96, ground: null });
  const flat = (id: string): Flat => ({
    kind: 'flat',
    id,
    at: { x: 0, y: 0 },
    gap: 0,
    fill: '#000000',
    runs: [{ closed: true, nodes: [{ point: { x: 0, y: 0 }, in: null, out: null, kind: 'corner' }] }],
  });
  const base = emptyDrawing(page, { id: 's', name: 'S', tag: '#336699' });
  const d = { ...base, sheets: [{ ...base.sheets[0], items: ['a', 'b', 'c'].map(flat) }] };
  const beneath = [
    { id: 'a', lab: labOfHex('#aa3311'), pixels: 900 },
    { id: 'b', lab: labOfHex('#ac3513'), pixels: 100 },
    { id: 'c', lab: labOfHex('#224488'), pixels: 500 },
  ];
  let n = 0;
  const take = (from: typeof d, joined: Parameters<typeof takeColours>[2]) =>
    applyChange(from, { id: 'c', ...takeColours(from, beneath, joined, () => `p${n++}`) }) as typeof d & {
      palette?: { id: string; colour: string }[];
    };
  const fills = (x: typeof d): unknown[] => x.sheets[0].items.map((f) => f.fill);
  expect(fills(take(d, { to: 'own' }))).toEqual(['#aa3311', '#ac3513', '#224488']);
  const few = take(d, { to: 'few', count: 2 });
  expect(few.palette).toHaveLength(2);
  expect(fills(few)[0]).toEqual(fills(few)[1]);
  // What the palette has is not added again.
  expect(take(few, { to: 'few', count: 2 }).palette).toHaveLength(2);
  expect(fills(take(few, { to: 'palette' }))).toEqual(fills(few));
  expect(takeColours(d, beneath, { to: 'palette' }, () => 'x').steps).toEqual([]);
});

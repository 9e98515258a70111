import fc from 'fast-check';
import { seeded } from '../seeded';
import { correctionSchema, firstCorrections } from './correction';
import { corrected } from './correct';
import { rgbaImage, type RgbaImage } from './rgba';
import { simplified } from './simplify';
import { inColours, toneSteps } from './steps';

/** Two grounds side by side, both grainy. */
function grainy(): RgbaImage {
  const random = seeded(6);
  const image = rgbaImage(120, 60);
  for (let i = 0; i < 120 * 60; i++) {
    const base = i % 120 < 60 ? [90, 140, 60] : [170, 120, 90];
    base.forEach((v, c) => (image.data[4 * i + c] = v + 24 * (random() - 0.5)));
    image.data[4 * i + 3] = 255;
  }
  return image;
}
const spread = (image: RgbaImage, from: number, to: number): number => {
  const own: number[] = [];
  for (let y = 10; y < 50; y++) for (let x = from; x < to; x++) own.push(image.data[4 * (y * 120 + x)]);
  const mean = own.reduce((a, b) => a + b) / own.length;
  return Math.sqrt(own.reduce((s, v) => s + (v - mean) ** 2, 0) / own.length);
};

test('what is simplified has less grain, and its edges where they were', () => {
  const before = grainy();
  const after = simplified(before, 20, 60);
  expect(spread(after, 10, 50)).toBeLessThan(spread(before, 10, 50) / 2.5);
  for (let y = 5; y < 55; y++) {
    const row = Array.from({ length: 120 }, (_, x) => after.data[4 * (y * 120 + x)]);
    const steepest = row.reduce((best, v, x) => (x > 0 && v - row[x - 1] > row[best] - row[best - 1] ? x : best), 1);
    expect(steepest).toBe(60);
    expect(row[62] - row[57]).toBeGreaterThan(55);
  }
  expect(simplified(before, 0, 60)).toBe(before);
});

test('one even colour stays as it is, whatever it is smoothed over', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 1, max: 80 }), (v, radius) => {
      const image = rgbaImage(17, 9);
      image.data.fill(v);
      expect([...simplified(image, radius, 30).data]).toEqual([...image.data]);
    }),
  );
});

test('a picture in steps has no other colours than these, each the nearest', () => {
  const colours = ['#5a8c3c', '#aa785a', '#102030'];
  const image = inColours(grainy(), colours);
  const seen = new Set<string>();
  for (let i = 0; i < image.data.length; i += 4)
    seen.add(`#${[...image.data.subarray(i, i + 3)].map((v) => v.toString(16).padStart(2, '0')).join('')}`);
  expect([...seen].sort()).toEqual(['#5a8c3c', '#aa785a']);
  expect(spread(image, 10, 50)).toBe(0);
});

test('tones are taken from where a picture has them; switched off, nothing is done', () => {
  const histogram = Array.from({ length: 256 }, (_, v) => (v === 40 ? 300 : v === 100 || v === 102 ? 100 : 0));
  expect(toneSteps(histogram, 2)).toEqual(['#282828', '#656565']);
  expect(toneSteps(new Array<number>(256).fill(0), 3)).toHaveLength(3);
  const image = grainy();
  expect(corrected(image, { ...firstCorrections.steps, on: false })).toBe(image);
  expect(corrected(image, firstCorrections.steps).data).not.toEqual(image.data);
  expect(corrected(image, firstCorrections.simplify, 0.5).data).not.toEqual(image.data);
  expect(correctionSchema.safeParse({ ...firstCorrections.steps, colours: ['#000000'] }).success).toBe(false);
});

import type { Point } from '..';
import { isWithin } from '../geometry/polygon';
import { rgbaImage } from '../raster/rgba';
import { setApart } from '../raster/setApart';
import { photos } from '../test/photo';
import { distanceToCurves } from '../test/strokes';
import { thingWithin } from './thingWithin';

test.each(photos().map((p) => [p.name, p] as const))('a loose outline finds the thing within: %s', (name, scene) => {
  const { image, outlines } = scene;
  // A box around the round thing, well off it.
  const loose = [
    { x: 40, y: 50 },
    { x: 320, y: 45 },
    { x: 322, y: 330 },
    { x: 45, y: 335 },
  ].map((p): Point => ({ x: p.x / image.width, y: p.y / image.height }));
  const found = thingWithin(image, loose);
  expect(found.length).toBeGreaterThan(0);
  const px = found[0].map((p) => ({ x: p.x * image.width, y: p.y * image.height }));
  if (name.includes('shadow') || name === 'out of focus') {
    // The border of a shadow, or of a blur, is not sure.
    expect(isWithin({ x: 180, y: 190 }, px)).toBe(true);
    expect(isWithin({ x: 20, y: 20 }, px)).toBe(false);
    return;
  }
  const off = px.map((p) => distanceToCurves(outlines[0], p));
  expect(off.filter((d) => d < 3).length / off.length).toBeGreaterThan(0.9);
});

test('nothing stands out where there is nothing; bad outlines are refused', () => {
  const { image } = photos()[1];
  const corner = [
    { x: 0.01, y: 0.01 },
    { x: 0.1, y: 0.01 },
    { x: 0.1, y: 0.1 },
  ];
  expect(thingWithin(image, corner)).toEqual([]);
  expect(() => thingWithin(image, corner.slice(1))).toThrow(RangeError);
  expect(() => thingWithin(image, [...corner, { x: NaN, y: 0 }])).toThrow(RangeError);
});

test('what lies outside is brought towards white, what lies inside stays', () => {
  const image = rgbaImage(40, 20);
  image.data.fill(100);
  const half = [
    { x: 0, y: 0 },
    { x: 0.5, y: 0 },
    { x: 0.5, y: 1 },
    { x: 0, y: 1 },
  ];
  const { data } = setApart(image, [half], 0.8);
  expect([...data.subarray(4 * 410, 4 * 410 + 4)]).toEqual([100, 100, 100, 100]);
  expect([...data.subarray(4 * 435, 4 * 435 + 4)]).toEqual([224, 224, 224, 100]);
  expect([...setApart(image, [], 1).data.subarray(0, 3)]).toEqual([255, 255, 255]);
});

import { seeded } from '../seeded';
import { cornersOfBox, homographyBetween, mapPoint } from './homography';
import { warp, type Pixels } from './warp';

const random = seeded(21);
const source: Pixels = {
  width: 24,
  height: 18,
  channels: 4,
  data: Uint8ClampedArray.from({ length: 24 * 18 * 4 }, (_, i) => (i % 4 === 3 ? 255 : random() * 256)),
};

/** One sample between the four pixels around it, written as one would on paper. */
function sampleAt(x: number, y: number, k: number): number {
  if (x < 0 || y < 0 || x > source.width || y > source.height) return 0;
  const value = (u: number, v: number): number => {
    const [cu, cv] = [Math.min(23, Math.max(0, u)), Math.min(17, Math.max(0, v))];
    return source.data[(cv * 24 + cu) * 4 + k];
  };
  const [px, py] = [Math.min(23, Math.max(0, x - 0.5)), Math.min(17, Math.max(0, y - 0.5))];
  const [l, t] = [Math.floor(px), Math.floor(py)];
  const [fx, fy] = [px - l, py - t];
  return (
    (value(l, t) * (1 - fx) + value(l + 1, t) * fx) * (1 - fy) +
    (value(l, t + 1) * (1 - fx) + value(l + 1, t + 1) * fx) * fy
  );
}

test('the usual case, written out for speed, gives what the plain rule gives', () => {
  const corners = [
    { x: 2, y: -3 },
    { x: 21, y: 1 },
    { x: 26, y: 16 },
    { x: -2, y: 17 },
  ];
  const size = { width: 40, height: 30 };
  const toSource = homographyBetween(cornersOfBox(size.width, size.height), corners);
  const fast = warp(source, size, toSource, [0, 0, 0, 0]);
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) {
      const p = mapPoint(toSource, { x: x + 0.5, y: y + 0.5 });
      for (let k = 0; k < 4; k++) {
        const value = fast.data[(y * size.width + x) * 4 + k];
        expect(Math.abs(value - sampleAt(p.x, p.y, k))).toBeLessThan(0.51);
      }
    }
  }
});

test('what lies beyond the edge is see-through, or the edge drawn out', () => {
  const shift = homographyBetween(
    cornersOfBox(10, 10),
    cornersOfBox(10, 10).map((p) => ({ x: p.x - 20, y: p.y })),
  );
  const clear = warp(source, { width: 10, height: 10 }, shift, [0, 0, 0, 0]);
  expect(clear.data.every((v) => v === 0)).toBe(true);
  const drawnOut = warp(source, { width: 10, height: 10 }, shift, 'edge');
  for (let y = 0; y < 10; y++)
    for (let k = 0; k < 3; k++) expect(drawnOut.data[(y * 10 + 3) * 4 + k]).toBe(source.data[y * 24 * 4 + k]);
});

test('three corners on one line are refused', () => {
  const line = [
    { x: 0, y: 0 },
    { x: 5, y: 5 },
    { x: 10, y: 10 },
    { x: 0, y: 10 },
  ];
  expect(() => homographyBetween(line, cornersOfBox(10, 10))).toThrow(RangeError);
});

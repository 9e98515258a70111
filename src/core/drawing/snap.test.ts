import fc from 'fast-check';
import { plainPage } from './schema';
import { snapOfBox, snapped } from './snap';

const page = {
  ...plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null }),
  guides: [
    { axis: 'x' as const, at: 100 },
    { axis: 'x' as const, at: 106 },
    { axis: 'y' as const, at: 50 },
  ],
};
const withGrid = { ...page, grid: { spacing: 20, visible: true, snap: true } };

test('places are drawn to the nearest guide within reach, each way by itself', () => {
  expect(snapped(page, { x: 102, y: 70 }, 5)).toEqual({ x: 100, y: 70 });
  expect(snapped(page, { x: 104, y: 47 }, 5)).toEqual({ x: 106, y: 50 });
  expect(snapped(page, { x: 90, y: 61 }, 5)).toEqual({ x: 90, y: 61 });
});

test('the grid draws too where it is on, after the guides', () => {
  expect(snapped(withGrid, { x: 102, y: 38 }, 5)).toEqual({ x: 100, y: 40 });
  expect(snapped(withGrid, { x: 63, y: 51 }, 5)).toEqual({ x: 60, y: 50 });
  expect(snapped({ ...withGrid, grid: { ...withGrid.grid, snap: false } }, { x: 63, y: 51 }, 5)).toEqual({
    x: 63,
    y: 50,
  });
});

test('nothing is moved further than the reach, and what was snapped stays', () => {
  const c = fc.double({ min: -500, max: 500, noNaN: true });
  fc.assert(
    fc.property(c, c, fc.double({ min: 0, max: 30, noNaN: true }), (x, y, reach) => {
      const q = snapped(withGrid, { x, y }, reach);
      expect(Math.abs(q.x - x)).toBeLessThanOrEqual(reach);
      expect(Math.abs(q.y - y)).toBeLessThanOrEqual(reach);
      expect(snapped(withGrid, q, reach)).toEqual(q);
    }),
  );
});

test('a box is drawn by the side or the middle that is nearest to a guide, else to the grid', () => {
  const box = (minX: number, minY: number, w: number, h: number) => ({ minX, minY, maxX: minX + w, maxY: minY + h });
  expect(snapOfBox(page, box(97, 200, 60, 40), 5)).toEqual({ x: 3, y: 0 });
  expect(snapOfBox(page, box(52, 28, 50, 40), 5)).toEqual({ x: -2, y: 2 });
  expect(snapOfBox(page, box(200, 200, 30, 30), 5)).toEqual({ x: 0, y: 0 });
  expect(snapOfBox(withGrid, box(203, 214, 31, 7), 5)).toEqual({ x: 1.5, y: -1 });
});

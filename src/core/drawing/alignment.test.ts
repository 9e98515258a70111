import fc from 'fast-check';
import { movedBox } from '../geometry/box';
import type { Box } from '../geometry/point';
import { alignBox } from './alignment';
import { plainPage } from './schema';

const page = plainPage({ width: 1000, height: 1000, unit: 'px', dpi: 96, ground: null });
const box = (minX: number, minY: number, w: number, h: number): Box => ({ minX, minY, maxX: minX + w, maxY: minY + h });
const at = fc.integer({ min: 0, max: 400 });
const size = fc.integer({ min: 1, max: 120 });
const boxes = fc.tuple(at, at, size, size).map(([x, y, w, h]) => box(x, y, w, h));

/** All places along one axis that a box may come to by what others are like, in the plainest way. */
function wantedPlaces(own: Box, others: readonly Box[], axis: 'X' | 'Y'): number[] {
  const [low, high] = [`min${axis}`, `max${axis}`] as ['minX' | 'minY', 'maxX' | 'maxY'];
  const [from, to] = axis === 'X' ? (['minY', 'maxY'] as const) : (['minX', 'maxX'] as const);
  const length = own[high] - own[low];
  const found = others.flatMap((o) => [
    ...[o[low], o[high]].flatMap((p) => [p, p - length]),
    (o[low] + o[high] - length) / 2,
  ]);
  const row = others.filter((o) => o[from] <= own[to] && own[from] <= o[to]);
  for (const a of row)
    for (const b of row) {
      const gap = b[low] - a[high];
      if (gap > 0) found.push(b[high] + gap, a[low] - gap - length, a[high] + (gap - length) / 2);
    }
  return found;
}

test('a box comes to a place that others give, never further than the reach, or stays', () => {
  fc.assert(
    fc.property(boxes, fc.array(boxes, { maxLength: 6 }), fc.integer({ min: 1, max: 12 }), (own, others, reach) => {
      const { by } = alignBox(page, own, others, reach);
      expect(Math.max(Math.abs(by.x), Math.abs(by.y))).toBeLessThanOrEqual(reach);
      const moved = movedBox(own, by);
      const isWanted = (places: number[], low: number): boolean => places.some((p) => Math.abs(p - low) < 1e-9);
      if (by.x !== 0) expect(isWanted(wantedPlaces(own, others, 'X'), moved.minX)).toBe(true);
      const beside = movedBox(own, { x: by.x, y: 0 });
      if (by.y !== 0) expect(isWanted(wantedPlaces(beside, others, 'Y'), moved.minY)).toBe(true);
      // Sides and middles are never missed where they are near.
      for (const o of others)
        for (const off of [o.minX - own.minX, o.maxX - own.maxX, o.minX - own.maxX, o.maxX - own.minX])
          if (Math.abs(off) <= reach) expect(Math.abs(by.x)).toBeLessThanOrEqual(Math.abs(off) + 1e-9);
      // What is in line stays there.
      const again = alignBox(page, moved, others, reach).by;
      expect(Math.abs(again.x) + Math.abs(again.y)).toBeLessThan(1e-9 + reach);
    }),
  );
});

test('sides, middles and equal gaps are told where they are kept', () => {
  const others = [box(0, 100, 40, 40), box(60, 100, 40, 40)];
  const right = alignBox(page, box(117, 103, 30, 30), others, 5);
  expect(right.by).toEqual({ x: 3, y: 2 });
  expect(right.marks).toEqual([
    {
      kind: 'gaps',
      axis: 'x',
      across: 120,
      gaps: [
        [40, 60],
        [100, 120],
      ],
    },
    { kind: 'line', axis: 'y', at: 120, from: 0, to: 150 },
  ]);
  const apart = [box(0, 100, 40, 40), box(160, 100, 40, 40)];
  const between = alignBox(page, box(83, 160, 30, 30), apart, 5);
  expect(between).toEqual({ by: { x: 0, y: 0 }, marks: [] });
  expect(alignBox(page, box(83, 110, 30, 30), apart, 5).by.x).toBe(2);
  expect(alignBox(page, box(43, 300, 30, 30), others, 5).marks).toEqual([
    { kind: 'line', axis: 'x', at: 40, from: 100, to: 330 },
  ]);
});

test('a guide goes before others, others before the grid', () => {
  const ruled = {
    ...page,
    guides: [{ axis: 'x' as const, at: 104 }],
    grid: { spacing: 10, visible: true, snap: true },
  };
  const others = [box(101, 0, 50, 33)];
  expect(alignBox(ruled, box(100, 500, 20, 20), others, 5).by.x).toBe(4);
  expect(alignBox({ ...ruled, guides: [] }, box(99, 501, 20, 20), others, 5).by).toEqual({ x: 2, y: -1 });
});

import { firstStyle, type Line } from '@/core';
import { cornerAt } from '../drawing/run';
import { ellipse } from '../drawing/shapes';
import { ranksOf } from './hierarchy';

const ring = (id: string, x: number, y: number, r: number, fill: string | null = null): Line => ({
  id,
  runs: [ellipse({ minX: x - r, minY: y - r, maxX: x + r, maxY: y + r })],
  style: { ...firstStyle, fill },
});
const stroke = (id: string, ...at: [number, number][]): Line => ({
  id,
  runs: [{ closed: false, nodes: at.map(([x, y]) => cornerAt({ x, y })) }],
  style: firstStyle,
});

test('the outline of a figure is outer, a line across it inner, short strokes within it details', () => {
  const lines = [
    // An outline of two open lines whose ends nearly meet.
    stroke('left', [200, 0], [0, 200], [200, 400]),
    stroke('right', [201, 1], [400, 200], [201, 399]),
    stroke('across', [60, 200], [340, 200]),
    stroke('speck', [150, 120], [170, 125]),
    ring('button', 220, 260, 12),
  ];
  expect(Object.fromEntries(ranksOf(lines))).toEqual({
    left: 'outer',
    right: 'outer',
    across: 'inner',
    speck: 'detail',
    button: 'detail',
  });
  expect(ranksOf([]).size).toBe(0);
});

import { firstStyle, type Line } from '@/core';
import { cornerAt } from '../drawing/run';
import { ellipse } from '../drawing/shapes';
import { emptyDrawing, freshSheet, plainPage } from '../drawing/schema';
import { ranksOf } from './hierarchy';
import { darker, fillBeside } from './tint';

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

test('a tint is darker and of the same hue; it comes from what a line encloses, or else borders', () => {
  expect(darker('#9ac46a', 0.5)).not.toBe('#9ac46a');
  expect(darker('#9ac46a', 1)).toBe('#000000');
  const d = {
    ...emptyDrawing(plainPage({ width: 400, height: 400, unit: 'px', dpi: 96, ground: null }), {
      id: 's',
      name: 'S',
      tag: '#aa3322',
    }),
    sheets: [
      {
        ...freshSheet('s', 'S', '#aa3322'),
        lines: [
          ring('a', 100, 100, 60, '#9ac46a'),
          stroke('vein', [70, 100], [130, 100]),
          stroke('far', [300, 300], [350, 300]),
        ],
      },
    ],
  };
  const [a, vein, far] = d.sheets[0].lines;
  expect(fillBeside(d, a)).toBe('#9ac46a');
  expect(fillBeside(d, vein)).toBe('#9ac46a');
  expect(fillBeside(d, far)).toBeNull();
});

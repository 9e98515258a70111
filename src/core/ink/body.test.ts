import { linesOf } from '../drawing/items';
import { firstStyle, readSvg, writeSvg, type Line, type Style } from '@/core';
import { cornerAt } from '../drawing/run';
import type { Mark } from '../drawing/schema';
import { cubicBounds } from '../geometry/bounds';
import type { Cubic } from '../geometry/cubic';
import { areaBetween, bodyOfOutlines } from '../test/bodyOracle';
import { wanderingDrawing } from '../test/drawings';
import { bodyOf, isPlainStroke } from './body';
import { dashesOf } from './dashes';
import { nibs } from './nibs';

const level = (style: Partial<Style>, marks?: Mark[]): Line => ({
  id: 'l',
  runs: [{ closed: false, nodes: [cornerAt({ x: 0, y: 0 }), cornerAt({ x: 100, y: 0 })] }],
  style: { ...firstStyle, width: 8, cap: 'butt', ...style },
  ...(marks && { marks }),
});
const areaOf = (outlines: Cubic[][]): number => areaBetween(bodyOfOutlines(outlines), new Map()).area;
const boxOf = (outlines: Cubic[][]) => {
  const boxes = outlines.flat().map(cubicBounds);
  return {
    minX: Math.min(...boxes.map((b) => b.minX)),
    maxX: Math.max(...boxes.map((b) => b.maxX)),
    minY: Math.min(...boxes.map((b) => b.minY)),
    maxY: Math.max(...boxes.map((b) => b.maxY)),
  };
};

describe('the body of a line', () => {
  it('is wide to the left and right as its marks say: left of the way it runs is up for a line to the right', () => {
    const { minY, maxY } = boxOf(bodyOf(level({}, [{ at: 0.5, left: 6, right: 2 }])));
    expect([minY, maxY]).toEqual([expect.closeTo(-6, 6), expect.closeTo(2, 6)]);
  });

  it('is left to SVG’s own stroke while nothing about it lives', () => {
    expect(isPlainStroke(level({ dash: { lengths: [4, 2], offset: 0 } }))).toBe(true);
    for (const style of [{ nib: nibs.brush.plain }, { wobble: 1 }, { overrun: 3 }] as Partial<Style>[])
      expect(isPlainStroke(level(style))).toBe(false);
    expect(isPlainStroke(level({}, [{ at: 0, left: 1, right: 1 }]))).toBe(false);
  });

  it('of a broad nib is an ellipse’s sweep: full width across its edge, thin along it', () => {
    const broad = (angle: number): number => {
      const { minY, maxY } = boxOf(bodyOf(level({ cap: 'round', nib: { kind: 'broad', angle, flatness: 0.25 } })));
      return maxY - minY;
    };
    expect(broad(90)).toBeCloseTo(8, 2);
    expect(broad(0)).toBeCloseTo(2, 2);
    // Half the height of an ellipse with half axes 4 and 1, turned by 45 degrees.
    expect(broad(45)).toBeCloseTo(2 * Math.sqrt((16 + 1) / 2), 2);
  });

  it('of a tapered nib comes to points, of a brush is fullest at its belly; marks are kept under both', () => {
    const tall = (line: Line, x: number): number =>
      [...bodyOfOutlines(bodyOf(line)).values()].filter((spans) => spans.some(([a, b]) => a <= x && x < b)).length / 16;
    expect(tall(level({ nib: nibs.tapered.plain }), 50)).toBeCloseTo(8, 0);
    expect(tall(level({ nib: nibs.tapered.plain }), 1)).toBeLessThan(2);
    expect(tall(level({ nib: nibs.brush.plain }), 35)).toBeCloseTo(8, 0);
    expect(tall(level({ nib: nibs.brush.plain }), 98)).toBeLessThan(0.6);
    const marked = level({ nib: nibs.tapered.plain }, [{ at: 0.5, left: 9, right: 9 }]);
    expect(tall(marked, 50)).toBeCloseTo(18, 0);
  });

  it('of a dry nib has streaks in it: the same for the same seed, and in proportion at every size', () => {
    const whole = areaOf(bodyOf(level({})));
    const dry = (seed: number, k = 1): Line => {
      const line = level({ nib: { kind: 'dry', dryness: 0.9 }, seed, width: 8 * k });
      return { ...line, runs: [{ closed: false, nodes: [cornerAt({ x: 0, y: 0 }), cornerAt({ x: 100 * k, y: 0 })] }] };
    };
    const area = areaOf(bodyOf(dry(1)));
    expect(area).toBeLessThan(0.97 * whole);
    expect(area).toBeGreaterThan(0.4 * whole);
    expect(bodyOf(dry(1))).toEqual(bodyOf(dry(1)));
    expect(bodyOf(dry(2))).not.toEqual(bodyOf(dry(1)));
    expect(areaOf(bodyOf(dry(1, 3))) / 9).toBeCloseTo(area, -0.7);
  });

  it('of an unsteady hand strays by no more than its amount, and keeps its ends', () => {
    const { minX, maxX, minY, maxY } = boxOf(bodyOf(level({ wobble: 3, seed: 4 })));
    expect(maxY - minY).toBeGreaterThan(9);
    expect(Math.max(maxY - 4, -4 - minY)).toBeLessThan(3.2);
    for (const off of [minX, maxX - 100]) expect(Math.abs(off)).toBeLessThan(3);
  });

  it('with overrun ends runs on straight, by a third of the amount to all of it', () => {
    const { minX, maxX } = boxOf(bodyOf(level({ overrun: 9, seed: 2 })));
    for (const beyond of [-minX, maxX - 100]) {
      expect(beyond).toBeGreaterThan(2.9);
      expect(beyond).toBeLessThan(9.1);
    }
  });

  it('is in pieces where it is dashed, each as wide as the whole is there', () => {
    const pieces = bodyOf(
      level({ dash: { lengths: [30, 10], offset: 0 } }, [
        { at: 0, left: 2, right: 2 },
        { at: 1, left: 6, right: 6 },
      ]),
    );
    expect(pieces).toHaveLength(3);
    // Trapezes of 30, 30 and 20 px.
    expect(areaOf(pieces)).toBeCloseTo(30 * 2 * (2.6 + 4.2) + 20 * 2 * 5.6, -1);
  });

  it('comes back from an SVG as it was: marks, nib and hand', () => {
    const drawing = wanderingDrawing(3, 1, 6);
    const lines = linesOf(drawing.sheets[0]).map((l, i): Line => ({
      ...l,
      style: {
        ...l.style,
        nib: Object.values(nibs)[i + 1].plain,
        wobble: 0.5,
        seed: i,
        fill: i === 1 ? '#aabbcc' : null,
      },
      marks: [
        { at: 0, left: 1, right: 2 },
        { at: 0.4, left: 5, right: 3, sharp: true },
      ],
    }));
    const svg = writeSvg({ ...drawing, sheets: [{ ...drawing.sheets[0], items: lines }] });
    const { drawing: back, dropped } = readSvg(svg);
    expect(dropped).toEqual([]);
    expect(linesOf(back.sheets[0]).map((l) => [l.style, l.marks])).toEqual(lines.map((l) => [l.style, l.marks]));
    // What is not sound is a shape like any other.
    const spoilt = readSvg(svg.replaceAll('&#34;left&#34;:5', '&#34;left&#34;:-5'));
    expect(linesOf(spoilt.drawing.sheets[0]).every((l) => !l.marks)).toBe(true);
  });
});

test('dashes: an odd list twice over, begun where the offset says', () => {
  expect(dashesOf(20, { lengths: [5, 3], offset: 0 })).toEqual([
    { from: 0, to: 5 },
    { from: 8, to: 13 },
    { from: 16, to: 20 },
  ]);
  expect(dashesOf(12, { lengths: [4], offset: 6 })).toEqual([
    { from: 2, to: 6 },
    { from: 10, to: 12 },
  ]);
  expect(dashesOf(10, { lengths: [0, 5], offset: 0 }).map((s) => s.from)).toEqual([0, 5]);
  expect(dashesOf(10, { lengths: [0], offset: 0 })).toEqual([{ from: 0, to: 10 }]);
});

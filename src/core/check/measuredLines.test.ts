import { emptyDrawing, plainPage, type Drawing, type GrayImage, type Line, type Point } from '@/core';
import { laidReference } from '../test/laidReference';
import { levelLine as level, twoStrokes } from '../test/levelLines';
import { CoveredInk } from './coveredInk';
import { MeasuredLines } from './measuredLines';

const p = (x: number, y: number): Point => ({ x, y });
const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
const image = twoStrokes();
const reference = laidReference(page, 400, 300);
const drawing = (...sheets: Line[][]): Drawing => {
  const empty = emptyDrawing(page, { id: 's0', name: 'S', tag: '#000000' });
  return {
    ...empty,
    references: [reference],
    sheets: sheets.map((items, i) => ({ ...empty.sheets[0], id: `s${i}`, items })),
  };
};
const all = <T>(steps: Generator<void, T>): number => {
  let n = 0;
  while (!steps.next().done) n++;
  return n;
};
const pictures = new Map<string, GrayImage>([['r', image]]);
const [at100, off3, off5] = [level('a', 100, 100), level('b', 103, 103), level('c', 205, 205)];

test('each seen line is measured once; sheets and the drawing have their sums', () => {
  const lines = new MeasuredLines(pictures);
  const d = drawing([at100, off3], [off5]);
  expect(lines.of(d, at100, 12)).toBeNull();
  expect(all(lines.measuring(d, 12))).toBe(3);
  expect(all(lines.measuring(d, 12))).toBe(0);
  const sums = lines.sums(d, 12);
  expect(sums.sheets.get('s0')!.mean).toBeCloseTo(1.5, 1);
  expect(sums.sheets.get('s1')!.mean).toBeCloseTo(5, 1);
  expect(sums.drawing.max).toBeCloseTo(5, 0);
  const hidden = { ...d, sheets: [d.sheets[0], { ...d.sheets[1], visible: false }] };
  expect([...lines.sums(hidden, 12).sheets.keys()]).toEqual(['s0']);
  expect(lines.sums(hidden, 12).drawing.max).toBeCloseTo(3, 0);
  // Another reach, another place of the picture, another picture: all anew.
  expect(all(lines.measuring(d, 9))).toBe(3);
  const moved = { ...d, references: [{ ...reference, at: p(0, 1) }] };
  expect(all(lines.measuring(moved, 9))).toBe(3);
  expect(all(lines.measuring({ ...d, references: [{ ...reference, dim: 0.4 }] }, 12))).toBe(3);
  expect(all(lines.measuring({ ...d, references: [] }, 12))).toBe(0);
});

test('under a hand the sums are with the lines as they would be; afterwards the whole line is measured', () => {
  const lines = new MeasuredLines(pictures);
  const five = level('a', 100, 100, 100, 100, 100, 100, 100, 100);
  const d = drawing([five], [off5]);
  all(lines.measuring(d, 12));
  const bent = level('a', 100, 100, 100, 106, 100, 100, 100, 100);
  const [live] = lines.moved(d, [bent], 12);
  expect(live.max).toBeGreaterThan(4);
  const sums = lines.sums(d, 12, [live]);
  expect(sums.sheets.get('s0')).toMatchObject({ max: live.max, mean: live.mean });
  expect(lines.sums(d, 12).sheets.get('s0')!.max).toBeLessThan(0.2);

  const after = drawing([bent], [off5]);
  expect(all(lines.measuring(after, 12))).toBe(1);
  expect(lines.of(after, bent, 12)!.max).toBeCloseTo(live.max, 5);
  expect(all(lines.completing(after, 12))).toBe(1);
  expect(all(lines.completing(after, 12))).toBe(0);
  const fresh = new MeasuredLines(pictures);
  all(fresh.measuring(after, 12));
  expect(lines.of(after, bent, 12)).toEqual(fresh.of(after, bent, 12));
});

test('ink is covered by what is seen, line by line, whatever was tried with them before', () => {
  const ink = new CoveredInk(pictures);
  const d = drawing([at100], [level('c', 215, 215)]);
  expect(all(ink.counting(d, 4))).toBe(2);
  const [whole] = ink.figures(d, 4);
  expect(whole).toEqual({ reference: 'r', covered: expect.closeTo(0.5, 1), parts: [] });
  // A hand brings the other line to its ink, and takes it away again.
  expect(ink.moved(d, [level('c', 200, 200)], 4)[0].covered).toBeGreaterThan(0.9);
  expect(all(ink.counting(d, 4))).toBe(1);
  expect(ink.figures(d, 4)[0]).toEqual(whole);
  const { patches } = ink.untraced(d, 'r', 4)!;
  // The stroke without a line, and the ends of the other, that stick out of theirs.
  expect(patches).toHaveLength(3);
  expect(patches[0].box.minY).toBeGreaterThan(190);
  const gone = drawing([at100], []);
  all(ink.counting(gone, 4));
  const parted = {
    ...gone,
    sheets: gone.sheets.map((s, i) => (i === 0 ? { ...s, part: { minX: 0, minY: 80, maxX: 400, maxY: 120 } } : s)),
  };
  all(ink.counting(parted, 4));
  expect(ink.figures(parted, 4)[0].parts).toEqual([{ sheet: 's0', covered: expect.closeTo(1, 1) }]);
  // By its edges a stroke has two outlines: other figures.
  const byEdges = { ...d, references: [{ ...reference, target: 'edge' as const }] };
  expect(ink.figures(byEdges, 4)[0].covered).not.toBe(whole.covered);
});

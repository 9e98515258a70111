import { lineOnGrid } from '../drawing/grid';
import { linesIn, linesOf } from '../drawing/items';
import { skeletonBoxOf } from '../drawing/run';
import { middleOfBox } from '../geometry/box';
import { wanderingDrawing } from '../test/drawings';
import { clippingOf } from './clipping';
import { keptInFull } from './keptClipping';
import { writeSvg } from './svg/writeSvg';

const drawing = wanderingDrawing(6, 4, 3);
const items = linesOf(drawing.sheets[0]);
const svg = writeSvg({ ...drawing, sheets: [drawing.sheets[0]] }, { scope: 'drawing' });
const read = (text: string, kept: string | null, at: { x: number; y: number } | null = null) => {
  let count = 0;
  return clippingOf(text, kept, at, () => `fresh${++count}`);
};
const shapes = (found: ReturnType<typeof read>) => linesIn(found.items).map((l) => l.runs);

it('gives what was copied here in full, under ids of its own, also where line ends have been changed', () => {
  const found = read(svg.replace(/\n/g, '\r\n'), keptInFull(svg, items, drawing));
  expect(shapes(found)).toEqual(items.map((l) => lineOnGrid(l).runs));
  expect(found.items.map((i) => i.id)).toEqual(items.map((_, i) => `fresh${i + 1}`));
});

it.each([
  ['nothing', null],
  ['what is no JSON', '{'],
  ['what was copied before', keptInFull('<svg/>', items, drawing)],
  ['what is not sound', keptInFull(svg, [{ ...items[0], runs: [] }], drawing)],
])('reads the SVG where %s is kept', (_, kept) => {
  const found = read(svg, kept);
  expect(found.items).toHaveLength(items.length);
  for (const line of linesIn(found.items)) expect(lineOnGrid(line)).toBe(line);
  const [own, was] = [found.items, items].map((list) => skeletonBoxOf(linesIn(list)));
  expect(own.maxX - own.minX).toBeCloseTo(was.maxX - was.minX, 2);
  expect(own.maxY - own.minY).toBeCloseTo(was.maxY - was.minY, 2);
});

it('takes what the first programs kept, and lays it about a place', () => {
  const old = JSON.stringify({ svg, lines: items.map(({ id, runs, style }) => ({ id, runs, style, groups: [] })) });
  const found = read(svg, old, { x: 40, y: 70 });
  const middle = middleOfBox(skeletonBoxOf(linesIn(found.items)));
  expect([middle.x, middle.y].map((v) => v.toFixed(4))).toEqual(['40.0000', '70.0000']);
});

it('names what cannot be kept, and throws for what is no SVG', () => {
  const found = read('<svg xmlns="http://www.w3.org/2000/svg"><text>word</text><path d="M0 0 L9 9"/></svg>', null);
  expect(found.items).toHaveLength(1);
  expect([found.dropped.length, found.why?.length]).toEqual([1, expect.any(Number)]);
  expect(() => read('<svg><path d="', null)).toThrow(RangeError);
});

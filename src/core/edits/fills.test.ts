import {
  applyChange,
  emptyDrawing,
  firstStyle,
  inverseOf,
  plainPage,
  type Drawing,
  type Flat,
  type Item,
  type Line,
} from '..';
import { changeOf } from '../change/changeOf';
import type { Edit } from '../change/edit';
import { lineOnGrid } from '../drawing/grid';
import { cornerAt } from '../drawing/run';
import { ellipse } from '../drawing/shapes';
import { readSvg } from '../formats/svg/readSvg';
import { writeSvg } from '../formats/svg/writeSvg';
import { inkOf, type GradientInk } from '../scene/ink';
import { toneOf } from '../colour/tone';
import { labOfHex } from '../colour/oklab';
import { lookNamed, nameOfLook, pictureInside, setPictureLook } from './cutOut';
import {
  fillWithGradient,
  fromItem,
  gradientOfItem,
  intoItem,
  setFill,
  setFillRule,
  setGradient,
  setLaying,
} from './fills';
import { drawnBehind } from './drawnInto';
import { addLine, moveLines } from './lines';
import { placedReference } from './references';
import { stackAt } from './stackAt';
import { neighbours, toneDistances, tooNear } from './toneDistance';

let n = 0;
const freshId = (): string => `n${n++}`;
const ring = (x: number, y: number, r: number) => ellipse({ minX: x - r, minY: y - r, maxX: x + r, maxY: y + r });
const box = (x: number, y: number, w: number, h: number) => ({
  closed: true,
  nodes: [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ].map(([px, py]) => cornerAt({ x: px, y: py })),
});
const line = (id: string, runs: Line['runs'], part: Partial<Line['style']> = {}): Line =>
  lineOnGrid({ id, runs, style: { ...firstStyle, ...part } });
const flat = (id: string, runs: Flat['runs'], fill: Flat['fill']): Flat => ({
  kind: 'flat',
  id,
  at: { x: runs[0].nodes[0].point.x + 5, y: runs[0].nodes[0].point.y + 5 },
  gap: 0,
  runs,
  fill,
});
const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
const of = (items: readonly Item[], part: Partial<Drawing> = {}): Drawing => {
  const empty = emptyDrawing(page, { id: 's', name: 'S', tag: '#336699' });
  return { ...empty, ...part, sheets: [{ ...empty.sheets[0], items }] };
};
function after(d: Drawing, e: Edit): Drawing {
  const change = changeOf(e, freshId());
  const then = applyChange(d, change);
  expect(JSON.stringify(applyChange(then, inverseOf(change, freshId(), 'back')))).toBe(JSON.stringify(d));
  return then;
}
const item = (d: Drawing, id: string): Item => d.sheets[0].items.find((i) => i.id === id)!;

test('a fill is set and taken away; the next line brings none by surprise', () => {
  const d = of([line('a', [ring(100, 100, 50)]), flat('f', [box(200, 50, 60, 60)], '#112233')]);
  const filled = after(d, setFill(d, ['a', 'f'], '#aa3311'));
  expect((item(filled, 'a') as Line).style.fill).toBe('#aa3311');
  expect((item(filled, 'f') as Flat).fill).toBe('#aa3311');
  expect(filled.sheets[0].style.fill).toBeNull();
  expect((item(after(filled, setFill(filled, ['a'], null)), 'a') as Line).style.fill).toBeNull();
  expect(setFill(filled, ['f'], null).steps).toEqual([]);
  const laid = after(d, setLaying(d, ['a', 'f'], { opacity: 0.4, blend: 'multiply' }));
  expect([item(laid, 'a'), item(laid, 'f')]).toMatchObject([1, 2].map(() => ({ opacity: 0.4, blend: 'multiply' })));
});

test('a gradient lies on what it fills, goes along with it, and is changed wherever it is', () => {
  const d = of([line('a', [box(100, 100, 80, 40)], { fill: '#336633' })]);
  const way = { kind: 'linear' as const, from: { x: 0, y: 0.5 }, to: { x: 1, y: 0.5 } };
  const graded = after(d, fillWithGradient(d, ['a'], way, 'g'));
  const ink = (x: Drawing): GradientInk =>
    inkOf(x, (item(x, 'a') as Line).style.fill!, item(x, 'a') as Line) as GradientInk;
  expect([ink(graded).from, ink(graded).to]).toEqual([
    { x: 100, y: 120 },
    { x: 180, y: 120 },
  ]);
  const [begin, end] = ink(graded).stops.map((s) => toneOf(s.colour));
  expect(end - begin).toBeCloseTo(0.2, 1);
  const moved = after(graded, moveLines(graded, ['a'], { x: 40, y: 0 }));
  expect(ink(moved).from).toEqual({ x: 140, y: 120 });
  const stops = [...gradientOfItem(graded, item(graded, 'a'))!.stops, { at: 0.5, colour: '#ffffff' }];
  const more = after(graded, setGradient(graded, 'g', { stops }));
  expect(ink(more).stops.map((s) => s.at)).toEqual([0, 0.5, 1]);
  expect(setGradient(graded, 'g', { kind: 'linear' }).steps).toEqual([]);
  const b = { minX: 10, minY: 20, maxX: 110, maxY: 60 };
  expect(intoItem(b, fromItem(b, { x: 0.3, y: 0.7 }))).toEqual({ x: expect.closeTo(0.3), y: expect.closeTo(0.7) });
});

test('runs in each other are filled in turns where that is said; a file says so as well', () => {
  const d = of([line('a', [ring(100, 100, 60), ring(100, 100, 30)], { fill: '#336633', width: 0 })]);
  const turns = after(d, setFillRule(d, ['a'], true));
  const svg = writeSvg(turns);
  expect(svg).toContain('fill-rule="evenodd"');
  expect(writeSvg(d)).not.toContain('fill-rule');
  const [back] = readSvg(svg).drawing.sheets[0].items;
  expect((back as Line).style.fillRule).toBe('evenodd');
  expect((item(after(turns, setFillRule(turns, ['a'], false)), 'a') as Line).style).not.toHaveProperty('fillRule');
});

test('what lies at a place, the uppermost first; new lines behind it', () => {
  const leaf = line('leaf', [ring(100, 100, 60)]);
  const d = of([
    flat('f', [ring(100, 100, 60)], '#336633'),
    leaf,
    {
      kind: 'group',
      id: 'g',
      name: '',
      items: [line('hatch', [box(90, 90, 20, 20)], { fill: '#ffffff' })],
      clip: { ...leaf, id: 'c', runs: [ring(60, 100, 20)] },
    },
    line('bar', [{ closed: false, nodes: [cornerAt({ x: 0, y: 100 }), cornerAt({ x: 200, y: 100 })] }]),
  ]);
  const at = (x: number, y: number): string[] => stackAt(d, { x, y }, 3).map((s) => s.item.id);
  expect(at(100, 100)).toEqual(['bar', 'f']);
  expect(at(42, 101)).toEqual(['bar', 'leaf', 'f']);
  expect(at(300, 280)).toEqual([]);
  expect(stackAt({ ...d, sheets: [{ ...d.sheets[0], visible: false }] }, { x: 100, y: 100 }, 3)).toEqual([]);
  const drawn = after(d, drawnBehind(d, addLine(d, 's', line('new', [box(0, 0, 9, 9)])), 'leaf'));
  expect(drawn.sheets[0].items.map((i) => i.id)).toEqual(['f', 'new', 'leaf', 'g', 'bar']);
});

test('tone distances, the worst first; neighbours that are too near in tone', () => {
  // Two beside each other, one apart by a gap, one within the first.
  const flats = [
    flat('a', [box(0, 0, 100, 100)], '#808080'),
    flat('b', [box(100, 20, 80, 60)], '#848484'),
    flat('c', [box(220, 0, 60, 60)], '#808080'),
    flat('d', [box(40, 40, 20, 20)], '#202020'),
  ];
  const d = of(flats);
  expect(neighbours(flats)).toEqual([[0, 1]]);
  expect(neighbours([{ ...flats[0], runs: [...flats[0].runs, ...flats[3].runs] }, flats[3]])).toEqual([[0, 1]]);
  expect(tooNear(d, flats).map(({ a, b }) => [a.id, b.id])).toEqual([['a', 'b']]);
  expect(tooNear(d, flats, 0.001)).toEqual([]);
  const beneath = new Map([
    ['a', { id: 'a', lab: labOfHex('#8a8a8a'), pixels: 10 }],
    ['d', { id: 'd', lab: labOfHex('#ffffff'), pixels: 5 }],
  ]);
  const found = toneDistances(d, flats, beneath);
  expect(found.map((t) => [t.flat.id, Math.sign(t.distance)])).toEqual([
    ['d', -1],
    ['a', -1],
  ]);
  expect(found[0].distance).toBeCloseTo(toneOf('#202020') - 1, 3);
});

test('a picture is cut out by a shape, in its own colours, in one or in two', () => {
  const r = placedReference(page, {
    id: 'r',
    name: 'p.jpg',
    picture: 'a'.repeat(64),
    pixelWidth: 800,
    pixelHeight: 600,
    dpi: null,
  });
  const d = of([line('a', [ring(100, 100, 50)])], {
    references: [{ ...r, corrections: [{ kind: 'grey', on: true }] }],
  });
  const cut = after(d, pictureInside(d, d.references[0], 'a', freshId));
  const picture = (x: Drawing) => {
    const group = x.sheets[0].items[1];
    if (group.kind !== 'group' || group.items[0].kind !== 'picture') throw new Error('no picture was cut out');
    return group.items[0];
  };
  expect(picture(cut)).toMatchObject({ width: r.width, corrections: [{ kind: 'grey' }] });
  for (const look of ['two', 'one', 'own'] as const) {
    const seen = after(cut, setPictureLook(cut, picture(cut).id, lookNamed(look)));
    expect(nameOfLook(picture(seen))).toBe(look);
    expect(picture(seen).corrections[0].kind).toBe('grey');
  }
});

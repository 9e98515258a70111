import { linesOf } from '../drawing/items';
import { firstStyle, type Cubic, type Drawing, type Line } from '@/core';
import { cornerAt } from '../drawing/run';
import { findLine } from '../drawing/find';
import { firstProfiles, marksOf, marksOn } from '../ink/profiles';
import { widthProfile } from '../ink/widths';
import { emptyDrawing, freshSheet, plainPage } from '../drawing/schema';
import { applyChange, inverseOf } from '../change/apply';
import { cutSegment } from './cut';
import type { Edit } from '../change/edit';
import { reverseLines, startAtNode } from './runs';
import { straightCubic } from '../geometry/cubic';
import { shapeMeetingEnds } from './endWidths';
import { strokesToShapes } from './shapes';
import { moveLines, removeLines, styleLines } from './lines';
import { shaded } from '../colour/colour';
import { colourOf } from '../scene/ink';
import * as strokes from './strokes';
import { transformLines } from './transform';

const marks = [
  { at: 0, left: 1, right: 2 },
  { at: 0.5, left: 6, right: 3, sharp: true },
  { at: 1, left: 2, right: 2 },
];
const line = (id: string, more: Partial<Line> = {}): Line => ({
  id,
  runs: [{ closed: false, nodes: [0, 40, 80, 120].map((x) => cornerAt({ x, y: x % 80 })) }],
  style: { ...firstStyle, width: 4 },
  ...more,
});
const drawing = (...lines: Line[]): Drawing => ({
  ...emptyDrawing(plainPage({ width: 200, height: 200, unit: 'px', dpi: 96, ground: null }), {
    id: 's',
    name: 'Lines',
    tag: '#aa3322',
  }),
  sheets: [{ ...freshSheet('s', 'Lines', '#aa3322'), items: lines }],
});
/** Does an edit, and takes it back: the drawing must be what it was, to the byte. */
function done(d: Drawing, e: Edit): Drawing {
  const change = { id: 'c', ...e };
  const after = applyChange(d, change);
  expect(JSON.stringify(applyChange(after, inverseOf(change, 'u', 'Undo')))).toBe(JSON.stringify(d));
  return after;
}
const widthsOf = (d: Drawing, id: string, at: number) => {
  const { left, right } = widthProfile(marksOn(findLine(d, id)!.line)).at(at);
  return { left, right };
};

test('a profile swells each line by its own width; evened out it is one width, and without marks', () => {
  const d = drawing(line('a'), line('b', { style: { ...firstStyle, width: 10 } }));
  const belly = firstProfiles.find((p) => p.id === 'belly')!;
  const swelled = done(d, strokes.applyProfile(d, ['a', 'b'], belly));
  expect(widthsOf(swelled, 'a', 0.5).left).toBeCloseTo(2.8, 9);
  expect(widthsOf(swelled, 'b', 0.5).left).toBeCloseTo(7, 9);
  const even = done(swelled, strokes.evenOut(swelled, ['a', 'b']));
  expect(findLine(even, 'a')!.line.marks).toBeUndefined();
  expect(findLine(even, 'a')!.line.style.width).toBeGreaterThan(2.5);
});

test('widths scale, turn round, and swap sides', () => {
  const d = drawing(line('a', { marks }), line('b'));
  const wide = done(d, strokes.scaleWidths(d, ['a', 'b'], 2, 'Wider'));
  expect(widthsOf(wide, 'a', 0.5)).toEqual({ left: 12, right: 6 });
  expect(findLine(wide, 'b')!.line.style.width).toBe(8);
  expect(widthsOf(done(d, strokes.turnProfiles(d, ['a'])), 'a', 1)).toEqual({ left: 1, right: 2 });
  expect(widthsOf(done(d, strokes.swapSides(d, ['a'])), 'a', 0.5)).toEqual({ left: 3, right: 6 });
});

test('a line that is reversed or mirrored keeps its body: left becomes right', () => {
  const d = drawing(line('a', { marks }));
  expect(widthsOf(done(d, reverseLines(d, ['a'])), 'a', 0.5)).toEqual({ left: 3, right: 6 });
  const mirror = { a: -1, b: 0, c: 0, d: 1, e: 0, f: 0 };
  expect(widthsOf(done(d, transformLines(d, ['a'], mirror, true, 'Flip')), 'a', 0.5)).toEqual({ left: 3, right: 6 });
});

test('both parts of a line that is cut are as wide as it was there', () => {
  const d = drawing(line('a', { marks }));
  const cut = done(d, cutSegment(d, { line: 'a', run: 0, segment: 1 }, 0.5, 'z'));
  const was = widthsOf(d, 'a', 0.25).left;
  expect(widthsOf(cut, 'a', 0.5).left).toBeCloseTo(was, 1);
  expect(widthsOf(cut, 'a', 1)).toEqual(widthsOf(cut, 'z', 0));
  expect(widthsOf(cut, 'z', 0).left).toBeCloseTo(6, 6);
});

test('a closed line that begins elsewhere keeps its widths where they were', () => {
  const nodes = [
    [0, 0],
    [50, 0],
    [50, 50],
    [0, 50],
  ].map(([x, y]) => cornerAt({ x, y }));
  const d = drawing(
    line('a', {
      runs: [{ closed: true, nodes }],
      marks: [
        { at: 0.25, left: 5, right: 5 },
        { at: 0.75, left: 1, right: 1 },
      ],
    }),
  );
  const turned = done(d, startAtNode(d, { line: 'a', run: 0, node: 1 }));
  expect(findLine(turned, 'a')!.line.marks!.map((m) => [m.at, m.left])).toEqual([
    [0, 5],
    [0.5, 1],
  ]);
});

test('profiles are kept by name with the drawing', () => {
  const d = drawing();
  const own = { id: 'p', name: 'my reed', marks: marksOf(firstProfiles[4], 2) };
  const kept = done(d, strokes.keepProfiles(d, [own], 'Keep profile'));
  expect(kept.profiles).toEqual([own]);
  expect(done(kept, strokes.keepProfiles(kept, [], 'Forget profile')).profiles).toBeUndefined();
});

test('strokes become shapes where they lay, fills stay below; taken back, all is as it was', () => {
  const filled = line('b', { style: { ...firstStyle, width: 4, fill: '#ddeeff' } });
  const d = drawing(line('a'), filled, line('c'));
  const outline = (x: number): Cubic[] => {
    const p = [0, 10, 10, 0].map((dx, i) => ({ x: x + dx, y: i < 2 ? 0 : 10 }));
    return p.map((q, i) => straightCubic(q, p[(i + 1) % 4]));
  };
  let count = 0;
  const shapes = [{ of: ['a', 'b'], outlines: [outline(0), outline(40)] }];
  const after = done(
    d,
    strokesToShapes(d, shapes, () => `f${++count}`, 'To shapes'),
  );
  const [fill, shape, other] = linesOf(after.sheets[0]);
  expect(linesOf(after.sheets[0]).map((l) => l.id)).toEqual(['f1', 'f2', 'c']);
  expect(fill.style).toMatchObject({ fill: '#ddeeff', width: 0 });
  expect(shape.style).toMatchObject({ fill: firstStyle.stroke, width: 0 });
  expect(shape.runs.map((r) => [r.closed, r.nodes.length])).toEqual([
    [true, 4],
    [true, 4],
  ]);
  expect(other).toBe(linesOf(d.sheets[0])[2]);
});

test('a linked tint follows the fill; a colour set by itself follows nothing', () => {
  const d = drawing(line('a', { style: { ...firstStyle, fill: '#9ac46a' } }), line('b'));
  const tinted = done(d, strokes.tintLines(d, ['a', 'b'], 0.5, true));
  const style = (x: Drawing) => findLine(x, 'a')!.line.style;
  const seen = (x: Drawing) => colourOf(x, style(x).stroke, findLine(x, 'a')!.line);
  expect(style(tinted).stroke).toEqual({ of: 'beside', by: 0.5, else: shaded('#9ac46a', 0.5) });
  expect(seen(tinted)).toBe(shaded('#9ac46a', 0.5));
  const refilled = done(tinted, styleLines(tinted, ['a'], { fill: '#cc7788' }, 'Fill'));
  expect(seen(refilled)).toBe(shaded('#cc7788', 0.5));
  const own = done(refilled, styleLines(refilled, ['a'], { stroke: '#123456' }, 'Colour'));
  expect(style(own)).toMatchObject({ stroke: '#123456', fill: '#cc7788' });
});

test('a linked tint follows the fill of another line that it borders', () => {
  const at = (x: number, y: number) => cornerAt({ x, y });
  const flat = line('flat', {
    style: { ...firstStyle, fill: '#9ac46a' },
    runs: [{ closed: true, nodes: [at(0, 0), at(100, 0), at(100, 100), at(0, 100)] }],
  });
  const border = line('border', { runs: [{ closed: false, nodes: [at(10, 50), at(90, 50)] }] });
  const away = line('away', { runs: [{ closed: false, nodes: [at(150, 10), at(190, 10)] }] });
  const d = drawing(flat, border, away);
  const tinted = done(d, strokes.tintLines(d, ['border', 'away'], 0.5, true));
  const colour = (x: Drawing, id: string) => {
    const { line } = findLine(x, id)!;
    return colourOf(x, line.style.stroke, line);
  };
  expect(colour(tinted, 'border')).toBe(shaded('#9ac46a', 0.5));
  const refilled = done(tinted, styleLines(tinted, ['flat'], { fill: '#cc7788' }, 'Fill'));
  expect(colour(refilled, 'border')).toBe(shaded('#cc7788', 0.5));
  expect(colour(refilled, 'away')).toBe(firstStyle.stroke);
  // Moved away, it is seen no more; gone, the tint stays what it was when it was given.
  const parted = done(refilled, moveLines(refilled, ['flat'], { x: 500, y: 0 }));
  expect(colour(parted, 'border')).toBe(shaded('#9ac46a', 0.5));
  const alone = done(refilled, removeLines(refilled, ['flat']));
  expect(colour(alone, 'border')).toBe(shaded('#9ac46a', 0.5));
  const once = done(d, strokes.tintLines(d, ['border'], 0.5, false));
  expect(colour(done(once, styleLines(once, ['flat'], { fill: '#cc7788' }, 'Fill')), 'border')).toBe(
    shaded('#9ac46a', 0.5),
  );
});

test('weights by rank in one change; marks keep their profile', () => {
  const d = drawing(line('a', { marks }), line('b'), line('c'));
  const ranks = new Map([
    ['a', 'outer'],
    ['b', 'inner'],
    ['c', 'detail'],
  ] as const);
  const after = done(d, strokes.weightLines(d, ranks, { outer: 8, inner: 3, detail: 1 }));
  expect(linesOf(after.sheets[0]).map((l) => l.style.width)).toEqual([8, 3, 1]);
  expect(widthsOf(after, 'a', 0.5)).toEqual({ left: 12, right: 6 });
});

test('an end that runs into another line is tapered, or filled again; the other end stays', () => {
  const level = (id: string, ...at: [number, number][]): Line =>
    line(id, { runs: [{ closed: false, nodes: at.map(([x, y]) => cornerAt({ x, y })) }] });
  const d = drawing(
    level('a', [0, 50], [99, 50]),
    level('wall', [100, 0], [100, 100]),
    level('free', [0, 150], [90, 150]),
  );
  const tapered = done(d, shapeMeetingEnds(d, ['a', 'free', 'wall'], 'taper', 1));
  expect(widthsOf(tapered, 'a', 1).left).toBeCloseTo(0.16, 6);
  expect(widthsOf(tapered, 'a', 0).left).toBe(2);
  expect(widthsOf(tapered, 'a', 0.6).left).toBeCloseTo(2, 6);
  for (const id of ['free', 'wall']) expect(findLine(tapered, id)!.line.marks).toBeUndefined();
  const filled = done(tapered, shapeMeetingEnds(tapered, ['a'], 'full', 1));
  for (const at of [0, 0.3, 0.8, 1]) expect(widthsOf(filled, 'a', at).left).toBeCloseTo(2, 6);
});

test('widths that were read make the plain width their mean, and are taken back with it', () => {
  const d = drawing(line('a'));
  const edit = strokes.setReadWidths(d, new Map([['a', marks]]), 'Read');
  const after = applyChange(d, { id: 'r', ...edit });
  const now = findLine(after, 'a')!.line;
  expect(now.marks).toEqual(marks);
  expect(now.style.width).toBeCloseTo(6.25, 9);
  expect(applyChange(after, inverseOf({ id: 'r', ...edit }, 'u', 'Undo'))).toEqual(d);
});

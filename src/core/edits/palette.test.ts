import { gradientAcross } from '../test/gradientAcross';
import { applyChange, inverseOf, type Drawing, type Line } from '..';
import { changeOf } from '../change/changeOf';
import type { Edit } from '../change/edit';
import { readPalette, writePalette, paletteFormats } from '../formats/palette';
import { wanderingDrawing } from '../test/drawings';
import { linesOf } from '../drawing/items';
import type { Paint } from '../drawing/paint';
import { colourOf } from '../scene/ink';
import {
  addSwatches,
  joinSwatches,
  joinTwins,
  linkToPalette,
  moveSwatch,
  removeSwatches,
  setSwatch,
  swatchUses,
  unusedSwatches,
} from './palette';
import { coloursIn, swapColours } from './swap';

let n = 0;
const freshId = (): string => `s${n++}`;
const plain = wanderingDrawing(6, 2, 3);
/** The lines of the drawing painted, each stroke and fill in turn. */
function painted(strokes: readonly Paint[], fills: readonly (Paint | null)[], part: Partial<Drawing> = {}): Drawing {
  let k = 0;
  const paint = (l: Line): Line => {
    const own = { ...l.style, stroke: strokes[k % strokes.length], fill: fills[k % fills.length] };
    k++;
    return { ...l, style: own };
  };
  return { ...plain, ...part, sheets: plain.sheets.map((s) => ({ ...s, items: linesOf(s).map(paint) })) };
}
const palette = [
  { id: 'leaf', name: 'Leaf', colour: '#336633', group: 'Greens' },
  { id: 'twin', name: 'Leaf again', colour: '#346733' },
  { id: 'sky', name: 'Sky', colour: '#88aadd' },
];
const shade: Paint = { of: { swatch: 'leaf' }, by: 0.3, else: '#000000' };
const linked = painted(['#111111', { swatch: 'twin' }], [null, { swatch: 'leaf' }, shade], {
  palette,
  gradients: [gradientAcross('g', [{ swatch: 'sky' }, '#111111'])],
});
/** What is after an edit; it can be taken back to the byte. */
function after(d: Drawing, e: Edit): Drawing {
  const change = changeOf(e, freshId());
  const then = applyChange(d, change);
  expect(JSON.stringify(applyChange(then, inverseOf(change, freshId(), 'back')))).toBe(JSON.stringify(d));
  return then;
}
const seen = (d: Drawing): (string | null)[] =>
  d.sheets
    .flatMap(linesOf)
    .flatMap((l) => [colourOf(d, l.style.stroke, l), l.style.fill && colourOf(d, l.style.fill, l)]);

test('swatches are added with names, named, moved, and changed wherever they are used', () => {
  const added = after(
    linked,
    addSwatches(linked, [{ colour: '#88ccaa' }, { colour: '#fff2ee', name: 'Skin' }], freshId),
  );
  expect(added.palette!.slice(3).map((s) => s.name)).toEqual(
    ['green', 'Skin'].map((x, i) => (i ? x : expect.stringContaining('green'))),
  );
  const red = after(linked, setSwatch(linked, 'leaf', { colour: '#aa3311' }));
  expect(seen(red).filter((c) => c === '#aa3311')).toHaveLength(seen(linked).filter((c) => c === '#336633').length);
  expect(after(linked, setSwatch(linked, 'leaf', { group: '' })).palette![0]).not.toHaveProperty('group');
  expect(setSwatch(linked, 'leaf', { name: 'Leaf' }).steps).toEqual([]);
  expect(after(linked, moveSwatch(linked, 'sky', 0)).palette!.map((s) => s.id)).toEqual(['sky', 'leaf', 'twin']);
});

test('a swatch that is taken away leaves its colour behind; joined, its uses go over', () => {
  const without = after(linked, removeSwatches(linked, new Set(['leaf', 'twin', 'sky'])));
  expect(seen(without)).toEqual(seen(linked));
  expect(JSON.stringify(without)).not.toContain('"swatch"');
  const joined = after(linked, joinSwatches(linked, new Map([['twin', 'leaf']])));
  expect(joined.palette!.map((s) => s.id)).toEqual(['leaf', 'sky']);
  expect(swatchUses(joined).get('leaf')).toBe(5);
  expect(after(linked, joinTwins(linked)).palette!.map((s) => s.id)).toEqual(['leaf', 'sky']);
  expect(unusedSwatches(linked)).toEqual(['sky']);
});

test('plain colours are linked to the swatches that have them', () => {
  const bare = painted(['#336633', '#88aadd'], ['#123456'], { palette });
  const d = after(bare, linkToPalette(bare));
  expect(seen(d)).toEqual(seen(bare));
  expect([...swatchUses(d)]).toEqual([
    ['leaf', 3],
    ['twin', 0],
    ['sky', 3],
  ]);
});

test('many colours are swapped at once, by stroke or fill, within some; none twice', () => {
  const d = painted(['#ff00ff', '#0000ff'], ['#0000ff', null]);
  const pairs = [
    { from: '#ff00ff', to: '#0000ff' },
    { from: '#0000ff', to: '#ffffff' },
  ];
  const both = after(d, swapColours(d, pairs, { uses: ['stroke', 'fill'] }));
  expect(seen(both)).toEqual(seen(d).map((c) => (c === '#ff00ff' ? '#0000ff' : c && '#ffffff')));
  const one = new Set([d.sheets.flatMap(linesOf)[1].id]);
  const strokes = after(d, swapColours(d, pairs.slice(1), { uses: ['stroke'], ids: one }));
  expect(seen(strokes).filter((c, i) => c !== seen(d)[i])).toEqual(['#ffffff']);
  expect(coloursIn(d).map((c) => [c.colour, c.stroke, c.fill])).toEqual([
    ['#0000ff', 3, 3],
    ['#ff00ff', 3, 0],
  ]);
  const locked = { ...d, sheets: d.sheets.map((s) => ({ ...s, locked: true })) };
  expect(swapColours(locked, pairs, { uses: ['stroke'] }).steps).toEqual([]);
});

test.each(paletteFormats)('a palette as %s and back', (format) => {
  const swatches = [...palette, { id: 'x', name: 'Leaf', colour: '#010203' }];
  const back = readPalette(writePalette(swatches, format));
  expect(back.map((s) => s.colour)).toEqual(swatches.map((s) => s.colour));
  if (format === 'json') expect(back[0]).toEqual({ name: 'Leaf', colour: '#336633', group: 'Greens' });
  if (format === 'css') expect(back.map((s) => s.name)).toEqual(['leaf', 'leaf again', 'sky', 'leaf 2']);
});

test('what is no palette is refused with words, and quickly', () => {
  expect(readPalette('#ABC, 112233;\n#zzz')).toEqual([{ colour: '#aabbcc' }, { colour: '#112233' }]);
  expect(readPalette(':root{--a:rgb(0 128 0);--b: nonsense}')).toEqual([{ name: 'a', colour: '#008000' }]);
  for (const bad of ['', 'words', '[', '{"a":1}', '[{"name":"x"}]', '[{"colour":"x"}]', `[${'['.repeat(9_000)}`])
    expect(() => readPalette(bad)).toThrow(RangeError);
  expect(() => readPalette('#'.repeat(400_000))).toThrow(RangeError);
  expect(() => readPalette('a'.repeat(600_000))).toThrow(/at most/);
});

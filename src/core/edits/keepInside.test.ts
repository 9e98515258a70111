import { applyChange, emptyDrawing, firstStyle, inverseOf, plainPage, type Drawing, type Line } from '..';
import { changeOf } from '../change/changeOf';
import { edit, type Edit } from '../change/edit';
import { findItem, groupsAround } from '../drawing/find';
import type { Flat, Group } from '../drawing/item';
import { lineOnGrid } from '../drawing/grid';
import { isGroup, linesOf } from '../drawing/items';
import { cornerAt } from '../drawing/run';
import { ellipse } from '../drawing/shapes';
import { toneOf } from '../colour/tone';
import { opaqueColourOf } from '../scene/ink';
import { leavesOf, sceneOf } from '../scene/scene';
import { boundsOf } from './flats';
import { withFollowing } from './following';
import { groupInside, keepInside, layInside, releaseInside, shapeFor } from './keepInside';
import { drawnInside } from './drawnInto';
import { addLine, moveLines, removeLines } from './lines';
import { layShades, underBlend } from './shades';
import { copiesOf } from './transform';

let n = 0;
const freshId = (): string => `n${n++}`;
const ring = (id: string, x: number, y: number, r: number): Line => ({
  id,
  runs: [ellipse({ minX: x - r, minY: y - r, maxX: x + r, maxY: y + r })],
  style: firstStyle,
});
const stroke = (id: string, ...at: [number, number][]): Line => ({
  id,
  runs: [{ closed: false, nodes: at.map(([x, y]) => cornerAt({ x, y })) }],
  style: firstStyle,
});
const page = plainPage({ width: 300, height: 300, unit: 'px', dpi: 96, ground: null });
const base = emptyDrawing(page, { id: 's', name: 'S', tag: '#336699' });
const leaf = lineOnGrid(ring('leaf', 100, 100, 60));
const [vein, other] = [stroke('vein', [20, 100], [180, 100]), stroke('other', [60, 20], [140, 180])];
const d: Drawing = { ...base, sheets: [{ ...base.sheets[0], items: [vein, leaf, other] }] };
const two: Drawing = {
  ...d,
  sheets: [...d.sheets, { ...base.sheets[0], id: 't', name: 'T', items: [stroke('far', [80, 80], [120, 120])] }],
};

/** What is after an edit with all that follows; it can be taken back to the byte. */
function after(from: Drawing, e: Edit): Drawing {
  const change = changeOf(withFollowing(from, e, freshId), freshId());
  const then = applyChange(from, change);
  expect(JSON.stringify(applyChange(then, inverseOf(change, freshId(), 'back')))).toBe(JSON.stringify(from));
  return then;
}
const heldIn = (x: Drawing, shape: string): Group => groupInside(x, shape)!.item as Group;

test('lines of several places are held inside of a shape, clipped by it; released they are as they were', () => {
  const held = after(two, keepInside(two, new Set(['vein', 'other', 'far', 'leaf']), 'leaf', freshId));
  expect(held.sheets[0].items.map((i) => i.id).slice(0, 1)).toEqual(['leaf']);
  const group = heldIn(held, 'leaf');
  expect(group.items.map((i) => i.id)).toEqual(['vein', 'other', 'far']);
  expect(group.clip!.runs).toEqual(leaf.runs);
  expect(leavesOf(sceneOf(held)).filter((l) => l.layers.some((x) => x.clip))).toHaveLength(3);
  // More goes to what is there already; and what is there already stays.
  expect(keepInside(held, new Set(['vein']), 'leaf', freshId).steps).toEqual([]);
  const free = after(held, releaseInside(held, group.id));
  expect(free.sheets[0].items).toEqual([leaf, vein, other, two.sheets[1].items[0]]);
  expect(keepInside(d, new Set(['leaf']), 'vein', freshId).steps).toEqual([]);
});

test('the clip follows its shape, whatever moves; it stays when that is gone or open', () => {
  const held = after(d, keepInside(d, new Set(['vein', 'other']), 'leaf', freshId));
  const moved = after(held, moveLines(held, ['leaf'], { x: 40, y: 8 }));
  expect(heldIn(moved, 'leaf').clip!.runs).toEqual((findItem(moved, 'leaf')!.item as Line).runs);
  expect(findItem(moved, 'vein')!.item).toBe(findItem(held, 'vein')!.item);
  // What is held is moved by itself: its shape stays, and so does what is seen of it.
  const slid = after(held, moveLines(held, ['vein', 'other'], { x: 16, y: 0 }));
  expect(heldIn(slid, 'leaf').clip!.runs).toEqual(leaf.runs);
  const all = after(held, moveLines(held, ['leaf', 'vein', 'other'], { x: 16, y: 0 }));
  expect(heldIn(all, 'leaf').clip!.runs).toEqual((findItem(all, 'leaf')!.item as Line).runs);
  const gone = after(held, removeLines(held, ['leaf']));
  expect(gone.sheets[0].items.filter(isGroup)[0].clip!.runs).toEqual(leaf.runs);
  // A copy is held inside of the same outline, and follows nothing.
  const copied = after(held, copiesOf(held, ['vein', 'other'], { x: 8, y: 8 }, freshId).edit);
  expect(copied.sheets[0].items.filter(isGroup).map((g) => g.inside)).toEqual(['leaf', undefined]);
});

test('what is drawn into a shape lies in it, and bounds no areas', () => {
  const drawn = stroke('new', [50, 50], [150, 150]);
  const into = after(d, drawnInside(d, addLine(d, 's', drawn), 'leaf', freshId));
  expect(heldIn(into, 'leaf').items).toEqual([drawn]);
  expect(boundsOf(into)).toHaveLength(3);
  const more = after(into, drawnInside(into, addLine(into, 's', stroke('more', [9, 9], [99, 99])), 'leaf', freshId));
  expect(heldIn(more, 'leaf').items.map((i) => i.id)).toEqual(['new', 'more']);
  const move = moveLines(d, ['vein'], { x: 8, y: 0 });
  expect(drawnInside(d, move, 'leaf', freshId)).toBe(move);
  expect(drawnInside(d, addLine(d, 's', drawn), 'vein', freshId).steps[0]).toMatchObject({ at: { sheet: 's' } });
});

test('the shape is the one around the others, else the one beneath', () => {
  expect(shapeFor(d, new Set(['vein', 'other', 'leaf']))).toBe('leaf');
  expect(shapeFor(d, new Set(['vein']))).toBe('leaf');
  expect(shapeFor(two, new Set(['far']))).toBe('leaf');
  // In a group it is found as well.
  const grouped = {
    ...d,
    sheets: [{ ...d.sheets[0], items: [leaf, { kind: 'group' as const, id: 'g', name: '', items: [vein] }] }],
  };
  expect(shapeFor(grouped, new Set(['vein']))).toBe('leaf');
  const apart = { ...d, sheets: [{ ...d.sheets[0], items: [leaf, stroke('x', [250, 250], [290, 290])] }] };
  expect(shapeFor(apart, new Set(['x']))).toBeNull();
  const inner = { ...d, sheets: [{ ...d.sheets[0], items: [leaf, ring('small', 100, 100, 20), vein] }] };
  expect(shapeFor(inner, new Set(['vein']))).toBe('small');
});

test('shades in a flat: darker and lighter by so much tone, of its swatch; blended, the same is seen', () => {
  const flat: Flat = { kind: 'flat', id: 'f', at: { x: 100, y: 100 }, gap: 0, runs: leaf.runs, fill: { swatch: 'p' } };
  const withFlat: Drawing = {
    ...d,
    palette: [{ id: 'p', name: 'Leaf', colour: '#6f9a4c' }],
    sheets: [{ ...d.sheets[0], items: [flat, ...d.sheets[0].items] }],
  };
  const shapes = [
    { runs: [ellipse({ minX: 60, minY: 60, maxX: 120, maxY: 140 })], by: 0.2 },
    { runs: [ellipse({ minX: 110, minY: 60, maxX: 150, maxY: 140 })], by: -0.15 },
  ];
  const plain = after(withFlat, layShades(withFlat, 'f', shapes, { blend: 'normal', opacity: 1 }, freshId));
  const fills = (x: Drawing): string[] =>
    linesOf({ items: heldIn(x, 'f').items }).map((l) => opaqueColourOf(x, l.style.fill!, l));
  const tone = toneOf('#6f9a4c');
  expect(fills(plain).map(toneOf)).toEqual([expect.closeTo(tone - 0.2, 1), expect.closeTo(tone + 0.15, 1)]);
  expect(plain.sheets[0].items[1].id).toBe(heldIn(plain, 'f').id);
  expect(groupsAround(plain.sheets[0], heldIn(plain, 'f').items[0].id)).toHaveLength(1);
  const blue = { ...plain, palette: [{ id: 'p', name: 'Leaf', colour: '#2d3a8c' }] };
  expect(fills(blue)).not.toEqual(fills(plain));
  // Multiplied over the flat the shade is the same colour.
  const under = underBlend('#6f9a4c', fills(plain)[0], 'multiply');
  const product = [1, 3, 5].map(
    (i) => (parseInt('#6f9a4c'.slice(i, i + 2), 16) * parseInt(under.slice(i, i + 2), 16)) / 255,
  );
  [1, 3, 5].forEach((i, k) =>
    expect(Math.abs(product[k] - parseInt(fills(plain)[0].slice(i, i + 2), 16))).toBeLessThan(1.5),
  );
  const laid = after(withFlat, layShades(withFlat, 'f', shapes, { blend: 'multiply', opacity: 0.6 }, freshId));
  expect(heldIn(laid, 'f').items[0]).toMatchObject({ blend: 'multiply', opacity: 0.6 });
  expect(layInside(withFlat, [], 'f', 'x', freshId)).toEqual(edit('x'));
});

test('copied with its shape, what is held is held by the copy of it, and follows that', () => {
  const held = after(d, keepInside(d, new Set(['vein', 'other']), 'leaf', freshId));
  const both = after(held, copiesOf(held, ['leaf', 'vein', 'other'], { x: 40, y: 20 }, freshId).edit);
  const copy = both.sheets[0].items.find((i) => i.id !== 'leaf' && i.kind === undefined)!;
  const group = heldIn(both, copy.id);
  expect(group.items).toHaveLength(2);
  expect(group.clip!.runs).toEqual((copy as Line).runs);
  const moved = after(both, moveLines(both, [copy.id], { x: 10, y: 0 }));
  expect(heldIn(moved, copy.id).clip!.runs).toEqual((findItem(moved, copy.id)!.item as Line).runs);
  expect(heldIn(moved, 'leaf').clip!.runs).toEqual(leaf.runs);
});

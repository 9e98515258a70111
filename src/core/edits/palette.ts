import type { Step } from '../change/change';
import { edit, type Edit } from '../change/edit';
import { colourName } from '../colour/colourName';
import { labDistance, labOfHex } from '../colour/oklab';
import { isSwatch, type BasePaint, type Swatch } from '../drawing/paint';
import type { Drawing } from '../drawing/schema';
import { eachPaint, repainted } from './paints';

/** The palette: named colours that paints speak of. Where one is changed, it changes wherever it is used. */

export const swatchesOf = (d: Pick<Drawing, 'palette'>): readonly Swatch[] => d.palette ?? [];

/** A step that sets the palette. */
export const paletteStep = (d: Drawing, palette: readonly Swatch[]): Step => ({
  step: 'setDrawing',
  before: { palette: [...swatchesOf(d)] },
  after: { palette: [...palette] },
});

export type NewSwatch = { readonly colour: string; readonly name?: string; readonly group?: string };

export const freshSwatch = ({ colour, name, group }: NewSwatch, id: string): Swatch => ({
  id,
  name: (name?.trim() || colourName(colour)).slice(0, 200),
  colour,
  ...(group && { group: group.slice(0, 200) }),
});

/** Swatches put at the end. */
export function addSwatches(d: Drawing, fresh: readonly NewSwatch[], freshId: () => string): Edit {
  if (fresh.length === 0) return edit('Add swatches');
  const added = fresh.map((s) => freshSwatch(s, freshId()));
  return edit(
    fresh.length === 1 ? 'Add a swatch' : `Add ${fresh.length} swatches`,
    paletteStep(d, [...swatchesOf(d), ...added]),
  );
}

/** Some of a swatch set: its colour is then another wherever it is used. An empty group is none. */
export function setSwatch(d: Drawing, id: string, sides: Partial<Omit<Swatch, 'id'>>): Edit {
  const next = swatchesOf(d).map((s): Swatch => {
    if (s.id !== id) return s;
    const { group, ...own } = { ...s, ...sides };
    return { ...own, ...(group && { group }) };
  });
  const now = swatchesOf(d).find((s) => s.id === id);
  const isSame = !now || Object.entries(sides).every(([k, v]) => (now[k as keyof Swatch] ?? '') === (v ?? ''));
  return edit(sides.colour ? 'Change a swatch' : 'Name a swatch', isSame ? [] : paletteStep(d, next));
}

/** A swatch at another place of the palette. */
export function moveSwatch(d: Drawing, id: string, index: number): Edit {
  const list = swatchesOf(d);
  const from = list.findIndex((s) => s.id === id);
  if (from < 0 || from === index) return edit('Move a swatch');
  const next = list.toSpliced(from, 1).toSpliced(index, 0, list[from]);
  return edit('Move a swatch', paletteStep(d, next));
}

/** Swatches taken away: what was painted with them keeps their colours. */
export function removeSwatches(d: Drawing, ids: ReadonlySet<string>): Edit {
  const colours = new Map(swatchesOf(d).flatMap((s) => (ids.has(s.id) ? [[s.id, s.colour] as const] : [])));
  const plain = (base: BasePaint): BasePaint => (isSwatch(base) ? (colours.get(base.swatch) ?? base) : base);
  const left = swatchesOf(d).filter((s) => !ids.has(s.id));
  if (colours.size === 0) return edit('Take swatches away');
  const label = colours.size === 1 ? 'Take a swatch away' : `Take ${colours.size} swatches away`;
  return edit(label, repainted(d, plain), paletteStep(d, left));
}

/** Swatches made others, by their ids: what was painted with them is painted with these. */
export function joinSwatches(d: Drawing, into: ReadonlyMap<string, string>): Edit {
  const left = swatchesOf(d).filter((s) => !into.has(s.id));
  if (left.length === swatchesOf(d).length) return edit('Join swatches');
  const joined = (base: BasePaint): BasePaint => {
    const to = isSwatch(base) ? into.get(base.swatch) : undefined;
    return to === undefined ? base : { swatch: to };
  };
  return edit('Join swatches', repainted(d, joined), paletteStep(d, left));
}

/** How many items are painted with each swatch. */
export function swatchUses(d: Drawing): Map<string, number> {
  const used = new Map(swatchesOf(d).map((s) => [s.id, new Set<string>()]));
  eachPaint(d, (base, _, id) => isSwatch(base) && used.get(base.swatch)?.add(id));
  return new Map([...used].map(([id, by]) => [id, by.size]));
}

export const unusedSwatches = (d: Drawing): string[] =>
  [...swatchUses(d)].flatMap(([id, count]) => (count === 0 ? [id] : []));

/** Swatches that look so much alike are twins (OKLab). */
export const TWINS = 0.025;

/** Swatches that look alike, each list with the one that is used most first. */
export function twinSwatches(d: Drawing): Swatch[][] {
  const uses = swatchUses(d);
  const left = [...swatchesOf(d)].sort((a, b) => uses.get(b.id)! - uses.get(a.id)!);
  const found: Swatch[][] = [];
  while (left.length > 0) {
    const first = left.shift()!;
    const lab = labOfHex(first.colour);
    const alike = left.filter((s) => labDistance(labOfHex(s.colour), lab) < TWINS);
    for (const s of alike) left.splice(left.indexOf(s), 1);
    if (alike.length > 0) found.push([first, ...alike]);
  }
  return found;
}

/** All twins made one each. */
export const joinTwins = (d: Drawing): Edit =>
  joinSwatches(d, new Map(twinSwatches(d).flatMap(([first, ...rest]) => rest.map((s) => [s.id, first.id] as const))));

/** Plain colours that a swatch has become that swatch, so that they are changed with it. */
export function linkToPalette(d: Drawing): Edit {
  const byColour = new Map([...swatchesOf(d)].reverse().map((s) => [s.colour, s.id]));
  const linked = (base: BasePaint): BasePaint => {
    const id = typeof base === 'string' && base.length === 7 ? byColour.get(base) : undefined;
    return id ? { swatch: id } : base;
  };
  return edit('Link colours to their swatches', repainted(d, linked));
}

import { eachPaint } from '../edits/paints';
import { flatsIn, isPart } from '../drawing/items';
import { sheetStates, type Drawing, type SheetState } from '../drawing/schema';
import { swatchesOf } from '../edits/palette';

/** What is left to do on a drawing, as far as it can be told without its pictures. Sheets and items by their ids. */
export type Readiness = {
  /** The parts in each state. */
  readonly parts: Readonly<Record<SheetState, readonly string[]>>;
  readonly empty: readonly string[];
  /** Sheets with something on them that is not seen, so that no file shows it. */
  readonly hidden: readonly string[];
  /** Flats whose lines no longer close them. */
  readonly open: readonly string[];
  /** Colours that are not of the palette, with the items that they are on; none where there is no palette. */
  readonly strays: readonly { readonly colour: string; readonly items: readonly string[] }[];
};

export function readinessOf(d: Drawing): Readiness {
  const full = d.sheets.filter((s) => s.items.length > 0);
  const inState = (state: SheetState): string[] => full.filter((s) => isPart(s) && s.state === state).map((s) => s.id);
  return {
    parts: Object.fromEntries(sheetStates.map((s) => [s, inState(s)])) as Record<SheetState, string[]>,
    empty: d.sheets.filter((s) => s.items.length === 0).map((s) => s.id),
    hidden: full.filter((s) => !s.visible).map((s) => s.id),
    open: d.sheets.filter((s) => s.visible).flatMap((s) => flatsIn(s.items).flatMap((f) => (f.open ? [f.id] : []))),
    strays: straysOf(d),
  };
}

/** What is written as a colour counts, not what looks like a swatch: that does not change with it. */
function straysOf(d: Drawing): { colour: string; items: string[] }[] {
  if (swatchesOf(d).length === 0) return [];
  const found = new Map<string, Set<string>>();
  eachPaint(d, (base, _, id) => {
    if (typeof base !== 'string') return;
    const own = found.get(base) ?? new Set();
    found.set(base, own.add(id));
  });
  return [...found]
    .map(([colour, items]) => ({ colour, items: [...items] }))
    .sort((a, b) => b.items.length - a.items.length);
}

import type { Sheet } from '@/core';

/** What a sheet's card shows of it, without what is drawn on it. */
export type SheetLook = Omit<Sheet, 'items' | 'style'>;

let last: readonly SheetLook[] = [];

/**
 * The sheets as their cards show them, the same objects for as long as these stay the same: a line that is laid changes
 * its sheet, but none of the cards.
 */
export function sheetLooks(sheets: readonly Sheet[]): readonly SheetLook[] {
  const known = new Map(last.map((l) => [l.id, l]));
  const looks = sheets.map(({ items: _items, style: _style, ...look }): SheetLook => {
    const before = known.get(look.id);
    return before && isSame(before, look) ? before : look;
  });
  if (looks.length !== last.length || looks.some((l, i) => l !== last[i])) last = looks;
  return last;
}

const isSame = (a: SheetLook, b: SheetLook): boolean =>
  (Object.keys(b) as (keyof SheetLook)[]).every((k) => a[k] === b[k]);

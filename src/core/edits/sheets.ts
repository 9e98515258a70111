import { sheetOf } from '../drawing/find';
import { firstStyle, freshSheet, type Drawing, type Sheet } from '../drawing/schema';
import { edit, sidesOf, type Edit } from '../change/edit';

/** Tag colours, given out in turn so that neighbours differ. All reach 4.5:1 on paper. */
export const tagColours = [
  '#8f2d63',
  '#0b6b66',
  '#a8461f',
  '#2d3a8c',
  '#476f27',
  '#7a4d00',
  '#5b3a8e',
  '#8c1c2b',
] as const;

/** The first tag colour that the fewest sheets have. */
export function nextTag(d: Drawing): string {
  const uses = (tag: string) => d.sheets.filter((s) => s.tag === tag).length;
  return tagColours.reduce((best, tag) => (uses(tag) < uses(best) ? tag : best));
}

/** A new sheet above the one named, or on top. It takes over that sheet's style. */
export function addSheet(d: Drawing, id: string, name: string, above?: string): Edit {
  const i = d.sheets.findIndex((s) => s.id === above);
  const index = i < 0 ? d.sheets.length : i + 1;
  const style = d.sheets[i]?.style ?? d.sheets.at(-1)?.style ?? firstStyle;
  const sheet: Sheet = { ...freshSheet(id, name, nextTag(d), style), folder: d.sheets[i]?.folder ?? null };
  return edit('Add sheet', { step: 'insertSheet', index, sheet });
}

/** A name no sheet has yet: "Sheet 3". */
export function freeSheetName(d: Drawing): string {
  let n = d.sheets.length + 1;
  while (d.sheets.some((s) => s.name === `Sheet ${n}`)) n++;
  return `Sheet ${n}`;
}

export function removeSheet(d: Drawing, id: string): Edit {
  const index = d.sheets.findIndex((s) => s.id === id);
  return edit('Delete sheet', index < 0 ? [] : { step: 'removeSheet', index, sheet: d.sheets[index] });
}

type Settable = Pick<Sheet, 'name' | 'tag' | 'visible' | 'locked' | 'state' | 'part' | 'opacity'>;

export function setSheet(d: Drawing, id: string, after: Partial<Settable>, label: string): Edit {
  const sheet = sheetOf(d, id);
  const sides = sheet && sidesOf<Settable>({ opacity: 1, ...sheet }, after);
  return edit(label, sides ? { step: 'setSheet', id, ...sides } : []);
}

export function moveSheet(d: Drawing, id: string, to: number): Edit {
  const from = d.sheets.findIndex((s) => s.id === id);
  const place = Math.min(d.sheets.length - 1, Math.max(0, to));
  return edit('Reorder sheets', from < 0 || from === place ? [] : { step: 'moveSheet', from, to: place });
}

import type { Drawing, Line, Reference, Sheet } from './schema';

/** Where a line is: its sheet and its place in it. */
export type Found = { sheet: Sheet; line: Line; index: number };

const places = new WeakMap<readonly Line[], Map<string, number>>();

/** The place of each line of a sheet by its id. Worked out once for each state of a sheet. */
function placesIn(lines: readonly Line[]): Map<string, number> {
  let map = places.get(lines);
  if (!map) {
    map = new Map(lines.map((l, i) => [l.id, i]));
    places.set(lines, map);
  }
  return map;
}

/** Says that `after` holds the same lines in the same places as `before`, so that nothing need be worked out anew. */
export const keepPlaces = (before: readonly Line[], after: readonly Line[]): void =>
  void places.set(after, placesIn(before));

export const sheetOf = (d: Drawing, id: string): Sheet | undefined => d.sheets.find((s) => s.id === id);
export const referenceOf = (d: Drawing, id: string): Reference | undefined => d.references.find((r) => r.id === id);
export const indexInSheet = (sheet: Sheet, line: string): number => placesIn(sheet.lines).get(line) ?? -1;

export function findLine(d: Drawing, id: string): Found | undefined {
  for (const sheet of d.sheets) {
    const index = placesIn(sheet.lines).get(id);
    if (index !== undefined) return { sheet, line: sheet.lines[index], index };
  }
  return undefined;
}

/** Whether lines of a sheet can be chosen and changed. */
export const isOpenSheet = (s: Sheet): boolean => s.visible && !s.locked;
export const nodeCount = (l: Line): number => l.runs.reduce((n, r) => n + r.nodes.length, 0);

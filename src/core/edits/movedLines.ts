import { linesOf } from '../drawing/items';
import type { Drawing, Line } from '../drawing/schema';

/** A line before and after, without one where it has come, or gone; and the sheets that it lay and lies on. */
export type Moved = {
  readonly was: Line | undefined;
  readonly is: Line | undefined;
  readonly sheets: readonly string[];
};

/** The lines that have come, gone or changed their shape. Whether their sheets are seen does not matter. */
export function movedLines(before: Drawing, after: Drawing): Moved[] {
  const list = (d: Drawing) =>
    d.sheets.flatMap((s) => linesOf(s).map((line) => [line.id, { line, sheet: s.id }] as const));
  const was = new Map(list(before));
  const moved: Moved[] = [];
  for (const [id, { line: is, sheet }] of list(after)) {
    const old = was.get(id);
    was.delete(id);
    if (old?.line.runs === is.runs && old.sheet === sheet) continue;
    moved.push({ was: old?.line, is, sheets: old && old.sheet !== sheet ? [old.sheet, sheet] : [sheet] });
  }
  return [...moved, ...[...was.values()].map(({ line, sheet }) => ({ was: line, is: undefined, sheets: [sheet] }))];
}

import type { Drawing, Line } from '@/core';

/** More lines than this are left to the tiles: drawing them live would cost more than waiting for those. */
const MOST_LIVE = 400;

/**
 * The lines of `after` that are not as they were in `before`, on visible sheets; and the ids of those that are gone or
 * changed. Sheets that are shared are passed over without a look.
 */
export function differingLines(before: Drawing, after: Drawing): { lines: Line[]; ids: string[] } {
  const lines: Line[] = [];
  const ids: string[] = [];
  if (before === after) return { lines, ids };
  for (const sheet of after.sheets) {
    const was = before.sheets.find((s) => s.id === sheet.id);
    if (!was || was.lines === sheet.lines || !sheet.visible) continue;
    const known = new Set<Line>(was.lines);
    for (const line of sheet.lines) {
      if (known.has(line)) continue;
      lines.push(line);
      ids.push(line.id);
      if (lines.length > MOST_LIVE) return { lines: [], ids: [] };
    }
  }
  return { lines, ids };
}

import { allLines, flatsIn, isGroup, isPart } from '../drawing/items';
import type { Drawing, Item } from '../drawing/schema';
import { applyChange, touchedItems } from './apply';
import type { Change } from './change';

/** A change of a journal: the revision that it made, when it came (ms since 1970). */
export type JournalChange = { readonly revision: number; readonly at: number; readonly change: Change };

/** How far a drawing was at a revision. */
export type HistoryPoint = {
  readonly revision: number;
  readonly at: number;
  /** What was done last. */
  readonly label: string;
  readonly lines: number;
  readonly flats: number;
  /** Sheets that are parts, and those of them that were traced. */
  readonly parts: number;
  readonly traced: number;
};

export type History = {
  /** At most so many, evenly over the changes; the last is as it is now. */
  readonly points: readonly HistoryPoint[];
  /** The items that it has now, in the order in which they were drawn. */
  readonly order: readonly string[];
};

/** What a drawing's journal tells: how it came about from its first state. Ends where a change does not fit. */
export function historyOf(first: Drawing, changes: readonly JournalChange[], most: number): History {
  const every = Math.max(1, Math.ceil(changes.length / Math.max(1, most)));
  const points: HistoryPoint[] = [];
  const touched = new Map<string, number>();
  let drawing = first;
  for (const [i, { revision, at, change }] of changes.entries()) {
    try {
      drawing = applyChange(drawing, change);
    } catch {
      break;
    }
    for (const id of touchedItems(change)) if (!touched.has(id)) touched.set(id, i);
    if ((i + 1) % every === 0 || i === changes.length - 1) points.push(pointOf(drawing, revision, at, change.label));
  }
  return { points, order: orderOf(drawing, touched) };
}

function pointOf(d: Drawing, revision: number, at: number, label: string): HistoryPoint {
  const parts = d.sheets.filter(isPart);
  return {
    revision,
    at,
    label,
    lines: allLines(d).length,
    flats: d.sheets.reduce((n, s) => n + flatsIn(s.items).length, 0),
    parts: parts.length,
    traced: parts.filter((s) => s.state === 'traced').length,
  };
}

/** What came by itself is known by its own id, what came in a group by the group's; the rest was there at first. */
function orderOf(d: Drawing, touched: ReadonlyMap<string, number>): string[] {
  const ranked: { id: string; rank: number }[] = [];
  const walk = (items: readonly Item[], around: number): void => {
    for (const item of items) {
      const rank = touched.get(item.id) ?? around;
      if (isGroup(item)) walk(item.items, rank);
      else ranked.push({ id: item.id, rank });
    }
  };
  for (const s of d.sheets) walk(s.items, -1);
  return ranked.sort((a, b) => a.rank - b.rank).map((r) => r.id);
}

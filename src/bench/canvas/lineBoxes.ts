import { boxesMeet } from '@/core/geometry/box';
import { hullBox } from '@/core/geometry/bounds';
import type { Box, Cubic, Line, Point } from '@/core';
import { controlBox, cubicsOf, segmentCount } from '@/core/drawing/run';

export type Segment = { box: Box; run: number; segment: number; cubic: Cubic };

/** A line with the box of its control points. Its segments are worked out when the pointer first comes near. */
export type Entry = Box & { readonly line: Line; segments: Segment[] | null };

type Row = { readonly lines: readonly Line[]; readonly entries: readonly Entry[] };
const NO_ROW: Row = { lines: [], entries: [] };

/**
 * Lines by the boxes of their control points. Follows lists of lines by what differs from those before. All boxes are gone
 * through for each search: for as many as a drawing can have that takes less than a tree that must follow every change.
 */
export class LineBoxes {
  private rows: ReadonlyMap<string, Row> = new Map();
  private byId: Map<string, Entry> | null = null;

  entryOf(id: string): Entry | undefined {
    this.byId ??= new Map([...this.rows.values()].flatMap((r) => r.entries.map((e) => [e.line.id, e])));
    return this.byId.get(id);
  }

  search(box: Box): Entry[] {
    const found: Entry[] = [];
    for (const { entries } of this.rows.values())
      for (const entry of entries) if (boxesMeet(entry, box)) found.push(entry);
    return found;
  }

  /** Takes over lists of lines, by their sheets. */
  follow(lists: ReadonlyMap<string, readonly Line[]>): void {
    this.rows = new Map([...lists].map(([sheet, lines]) => [sheet, followed(this.rows.get(sheet) ?? NO_ROW, lines)]));
    this.byId = null;
  }
}

/** A list with its boxes: a line that is as it was, in its place or one further on, has the one that it had. */
function followed(before: Row, lines: readonly Line[]): Row {
  if (before.lines === lines) return before;
  let next = 0;
  const entries = lines.map((line): Entry => {
    for (const at of [next, next + 1]) {
      const known = before.entries[at];
      if (known?.line !== line) continue;
      next = at + 1;
      return known;
    }
    if (before.entries[next]?.line.id === line.id) next++;
    return entryFor(line);
  });
  return { lines, entries };
}

function entryFor(line: Line): Entry {
  const { minX, minY, maxX, maxY } = controlBox(line);
  return { minX, minY, maxX, maxY, line, segments: null };
}

/** The segments of a line, each with the box of its control points. */
export const segmentsOf = (entry: Entry): Segment[] => (entry.segments ??= worked(entry.line));

const worked = (line: Line): Segment[] =>
  line.runs.flatMap((run, r) => {
    const list = segmentCount(run) > 0 ? cubicsOf(run) : [pointCubic(run.nodes[0].point)];
    return list.map((cubic, segment) => ({ box: hullBox(cubic), run: r, segment, cubic }));
  });

const pointCubic = (p: Point): Cubic => [p, p, p, p];

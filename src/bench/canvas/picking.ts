import RBush from 'rbush';
import type { Box, Cubic, Drawing, Line, Point } from '@/core';
import { nearestOnCubic } from '@/core';
import { boxHolds, boxesMeet, distanceToBox } from '@/core/geometry/box';
import { hullBox } from '@/core/geometry/bounds';
import { splitAt } from '@/core/geometry/cubic';
import { cubicsOf, skeletonBox } from '@/core/drawing/run';
import { isOpenSheet } from '@/core/drawing/find';

type Segment = Box & { line: Line; run: number; segment: number; cubic: Cubic };

/** Half of the widest stroke that can be taken hold of anywhere in its body, in page units. */
const WIDEST_BODY = 40;

/** A place on a line under the pointer. */
export type Hit = { line: Line; run: number; segment: number; t: number; point: Point; distance: number };

/**
 * Finds the line nearest to a place: a tree of segments, the candidates by the distance of their boxes, then the exact
 * foot on each until no box is nearer. Follows the drawing by what differs. Only lines that can be touched are in it.
 */
export class Picking {
  private tree = new RBush<Segment>();
  private entries = new Map<string, { line: Line; segments: Segment[] }>();
  private drawing: Drawing | null = null;

  private follow(drawing: Drawing): void {
    if (drawing === this.drawing) return;
    const isFirst = this.drawing === null;
    this.drawing = drawing;
    const seen = new Set<string>();
    const added: Segment[] = [];
    for (const sheet of drawing.sheets) {
      if (!isOpenSheet(sheet)) continue;
      for (const line of sheet.lines) {
        seen.add(line.id);
        const known = this.entries.get(line.id);
        if (known?.line === line) continue;
        if (known && known.line.runs === line.runs) {
          known.line = line;
          for (const s of known.segments) s.line = line;
          continue;
        }
        known?.segments.forEach((s) => this.tree.remove(s));
        const segments = segmentsOf(line);
        this.entries.set(line.id, { line, segments });
        added.push(...segments);
      }
    }
    for (const [id, entry] of this.entries) {
      if (seen.has(id)) continue;
      entry.segments.forEach((s) => this.tree.remove(s));
      this.entries.delete(id);
    }
    if (isFirst || added.length > 1_000) this.tree.load(added);
    else for (const s of added) this.tree.insert(s);
  }

  /** The nearest place on a line within `reach` page units of `p`, or of a line's own body. */
  nearest(drawing: Drawing, p: Point, reach: number, only?: ReadonlySet<string>): Hit | null {
    this.follow(drawing);
    const box = { minX: p.x - reach, minY: p.y - reach, maxX: p.x + reach, maxY: p.y + reach };
    const candidates = this.tree
      .search(box)
      .filter((s) => !only || only.has(s.line.id))
      .map((s) => ({ s, least: distanceToBox(s, p) }))
      .sort((a, b) => a.least - b.least);
    let best: Hit | null = null;
    for (const { s, least } of candidates) {
      if (least > (best ? best.distance : reach)) break;
      const found = nearestOnCubic(s.cubic, p);
      if (found.distance <= reach && (!best || found.distance < best.distance)) {
        best = { line: s.line, run: s.run, segment: s.segment, ...found };
      }
    }
    return best;
  }

  /** What a press at `p` means: a line's curve within `reach`, or else the body of a line that lies under it. */
  under(drawing: Drawing, p: Point, reach: number, only?: ReadonlySet<string>): Hit | null {
    const near = this.nearest(drawing, p, reach, only);
    if (near) return near;
    const body = this.nearest(drawing, p, Math.max(reach, WIDEST_BODY), only);
    return body && body.distance <= body.line.style.width / 2 ? body : null;
  }

  /** The lines that a box touches. */
  touching(drawing: Drawing, box: Box): string[] {
    this.follow(drawing);
    const found = new Set<string>();
    for (const s of this.tree.search(box)) {
      if (!found.has(s.line.id) && touches(s.cubic, box, 0)) found.add(s.line.id);
    }
    return [...found];
  }
}

const segmentsOf = (line: Line): Segment[] =>
  line.runs.flatMap((run, r) => {
    const list = cubicsOf(run);
    if (list.length === 0) return [{ ...skeletonBox(line), line, run: r, segment: 0, cubic: pointCubic(run.nodes[0].point) }];
    return list.map((cubic, segment) => ({ ...hullBox(cubic), line, run: r, segment, cubic }));
  });

const pointCubic = (p: Point): Cubic => [p, p, p, p];

/** Whether a curve reaches into a box: by halving until a piece lies inside, outside, or is a hair's breadth long. */
function touches(c: Cubic, box: Box, depth: number): boolean {
  const hull = hullBox(c);
  if (!boxesMeet(hull, box)) return false;
  if (boxHolds(box, c[0]) || boxHolds(box, c[3]) || depth > 14) return true;
  const [left, right] = splitAt(c, 0.5);
  return touches(left, box, depth + 1) || touches(right, box, depth + 1);
}

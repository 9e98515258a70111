import RBush from 'rbush';
import type { Box, Cubic, Drawing, Line, Point } from '@/core';
import { nearestOnCubic } from '@/core';
import { distanceToBox, emptyBox, growBox } from '@/core/geometry/box';
import { distance } from '@/core/geometry/point';
import { liesInRegion, touchesRegion, type Region } from '@/core/drawing/region';
import { hullBox } from '@/core/geometry/bounds';
import { cubicsOf, nearestOnLine, segmentCount } from '@/core/drawing/run';
import { isOpenSheet } from '@/core/drawing/find';

type Segment = { box: Box; run: number; segment: number; cubic: Cubic };

/** A line in the tree: the box of its control points. Its segments are worked out when the pointer first comes near. */
type Entry = Box & { line: Line; segments: Segment[] | null };

/** Half of the widest stroke that can be taken hold of anywhere in its body, in page units. */
const WIDEST_BODY = 40;

/** A place on a line under the pointer. */
export type Hit = { line: Line; run: number; segment: number; t: number; point: Point; distance: number };

/**
 * Finds the line nearest to a place: a tree of lines, their segments by the distance of their boxes, then the exact foot
 * on each until no box is nearer. Follows the drawing by what differs. Only lines that can be touched are in it.
 */
export class Picking {
  private readonly tree = new RBush<Entry>();
  private entries = new Map<string, Entry>();
  private drawing: Drawing | null = null;
  private solo: string | null = null;

  /** Only this sheet's lines can be touched, for as long as it is seen alone; null for all sheets. */
  see(solo: string | null): void {
    if (solo !== this.solo) this.drawing = null;
    this.solo = solo;
  }

  /** Makes ready for a drawing ahead of the first question: for very many lines that takes a while. */
  prepare(drawing: Drawing): void {
    this.follow(drawing);
  }

  private follow(drawing: Drawing): void {
    if (drawing === this.drawing) return;
    this.drawing = drawing;
    const before = this.entries;
    const after = new Map<string, Entry>();
    const added: Entry[] = [];
    for (const sheet of drawing.sheets) {
      if (!isOpenSheet(sheet) || (this.solo !== null && sheet.id !== this.solo)) continue;
      for (const line of sheet.lines) {
        let entry = before.get(line.id);
        if (entry && entry.line.runs === line.runs) entry.line = line;
        else added.push((entry = entryOf(line)));
        after.set(line.id, entry);
      }
    }
    for (const [id, entry] of before) if (after.get(id) !== entry) this.tree.remove(entry);
    if (added.length > 200) this.tree.load(added);
    else for (const entry of added) this.tree.insert(entry);
    this.entries = after;
  }

  /** The nearest place on a line within `reach` page units of `p`; of lines that `wanted` lets through. */
  nearest(drawing: Drawing, p: Point, reach: number, wanted: (l: Line) => boolean = () => true): Hit | null {
    this.follow(drawing);
    const around = growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, reach);
    const candidates: { line: Line; s: Segment; least: number }[] = [];
    for (const entry of this.tree.search(around)) {
      if (!wanted(entry.line)) continue;
      for (const s of (entry.segments ??= segmentsOf(entry.line))) {
        const least = distanceToBox(s.box, p);
        if (least <= reach) candidates.push({ line: entry.line, s, least });
      }
    }
    candidates.sort((a, b) => a.least - b.least);
    let best: Hit | null = null;
    for (const { line, s, least } of candidates) {
      if (best && least > best.distance) break;
      const found = nearestOnCubic(s.cubic, p);
      if (found.distance <= reach && (!best || found.distance < best.distance)) {
        best = { line, run: s.run, segment: s.segment, ...found };
      }
    }
    return best;
  }

  /** What a press at `p` means: a line's curve within `reach`, or else the body of a line that lies under it. */
  under(drawing: Drawing, p: Point, reach: number, wanted?: (l: Line) => boolean): Hit | null {
    const near = this.nearest(drawing, p, reach, wanted);
    if (near) return near;
    const body = this.nearest(drawing, p, Math.max(reach, WIDEST_BODY), wanted);
    return body && body.distance <= body.line.style.width / 2 ? body : null;
  }

  /** The lines whose curve or body lies under a place, the nearest first; of the same distance, the upper one. */
  allUnder(drawing: Drawing, p: Point, reach: number): string[] {
    this.follow(drawing);
    const order = new Map(drawing.sheets.flatMap((s) => s.lines).map((l, i) => [l.id, i]));
    const around = growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, Math.max(reach, WIDEST_BODY));
    return this.tree
      .search(around)
      .flatMap(({ line }) => {
        const at = nearestOnLine(line, p);
        return at && at.distance <= Math.max(reach, line.style.width / 2) ? { id: line.id, distance: at.distance } : [];
      })
      .sort((a, b) => a.distance - b.distance || order.get(b.id)! - order.get(a.id)!)
      .map((x) => x.id);
  }

  /** The node nearest to a place within `reach`, of lines that `wanted` lets through. */
  nearestNode(drawing: Drawing, p: Point, reach: number, wanted: (l: Line) => boolean = () => true): NodeHit | null {
    this.follow(drawing);
    let best: NodeHit | null = null;
    for (const { line } of this.tree.search(growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, reach))) {
      if (!wanted(line)) continue;
      line.runs.forEach((r, run) =>
        r.nodes.forEach((n, node) => {
          const d = distance(n.point, p);
          if (d <= reach && (!best || d < best.distance)) best = { line, run, node, point: n.point, distance: d };
        }),
      );
    }
    return best;
  }

  /** The lines that a region touches, or holds as a whole, in painting order. */
  inRegion(drawing: Drawing, region: Region, whole = false): string[] {
    this.follow(drawing);
    const found = new Set(
      this.tree
        .search(region.box)
        .filter(({ line }) => (whole ? liesInRegion : touchesRegion)(line, region))
        .map(({ line }) => line.id),
    );
    return drawing.sheets.flatMap((s) => s.lines.filter((l) => found.has(l.id)).map((l) => l.id));
  }
}

/** A node near a place. */
export type NodeHit = { line: Line; run: number; node: number; point: Point; distance: number };

function entryOf(line: Line): Entry {
  const entry: Entry = { ...emptyBox, line, segments: null };
  for (const run of line.runs) {
    for (const { point, in: into, out } of run.nodes) {
      // The curve lies within the hull of its points and handles.
      for (const offset of [null, into, out]) {
        const [x, y] = [point.x + (offset?.x ?? 0), point.y + (offset?.y ?? 0)];
        entry.minX = Math.min(entry.minX, x);
        entry.minY = Math.min(entry.minY, y);
        entry.maxX = Math.max(entry.maxX, x);
        entry.maxY = Math.max(entry.maxY, y);
      }
    }
  }
  return entry;
}

const segmentsOf = (line: Line): Segment[] =>
  line.runs.flatMap((run, r) => {
    const list = segmentCount(run) > 0 ? cubicsOf(run) : [pointCubic(run.nodes[0].point)];
    return list.map((cubic, segment) => ({ box: hullBox(cubic), run: r, segment, cubic }));
  });

const pointCubic = (p: Point): Cubic => [p, p, p, p];

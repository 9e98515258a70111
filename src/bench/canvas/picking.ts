import { allLines, linesOf } from '@/core/drawing/items';
import type { Box, Drawing, Line, Point } from '@/core';
import { nearestOnCubic } from '@/core';
import { distanceToBox, growBox, joinBoxes } from '@/core/geometry/box';
import { distance } from '@/core/geometry/point';
import { liesInRegion, touchesRegion, type Region } from '@/core/drawing/region';
import { nearestOnLine } from '@/core/drawing/run';
import { isOpenSheet } from '@/core/drawing/find';
import { LineBoxes, segmentsOf, type Segment } from './lineBoxes';

/** Half of the widest stroke that can be taken hold of anywhere in its body, in page units. */
const WIDEST_BODY = 40;

/** A place on a line under the pointer. */
export type Hit = { line: Line; run: number; segment: number; t: number; point: Point; distance: number };

/**
 * Finds the line nearest to a place: lines by their boxes, their segments by the distance of theirs, then the exact foot on each
 * until no box is nearer. Only lines that can be touched are in it.
 */
export class Picking {
  private readonly boxes = new LineBoxes();
  private drawing: Drawing | null = null;
  private solo: string | null = null;
  private around: { drawing: Drawing; ids: unknown; box: Box | null; widest: number } | null = null;

  /** Only this sheet's lines can be touched, for as long as it is seen alone; null for all sheets. */
  see(solo: string | null): void {
    if (solo !== this.solo) this.drawing = null;
    this.solo = solo;
  }

  /** Makes ready for a drawing ahead of the first question: for very many lines that takes a while. */
  prepare(drawing: Drawing): void {
    this.follow(drawing);
  }

  /** Takes over a drawing: only lists of lines that are others than before are gone through. */
  private follow(drawing: Drawing): void {
    if (drawing === this.drawing) return;
    this.drawing = drawing;
    const lists = new Map<string, readonly Line[]>();
    for (const sheet of drawing.sheets)
      if (isOpenSheet(sheet) && (this.solo === null || sheet.id === this.solo)) lists.set(sheet.id, linesOf(sheet));
    this.boxes.follow(lists);
  }

  /** The box around the control points of some lines; null where none of them can be touched. */
  boxAround(drawing: Drawing, ids: ReadonlySet<string>): Box | null {
    return this.allAround(drawing, ids).box;
  }

  /** The same with their strokes' bodies. */
  bodiesAround(drawing: Drawing, ids: ReadonlySet<string>): Box | null {
    const { box, widest } = this.allAround(drawing, ids);
    return box && growBox(box, widest);
  }

  private allAround(drawing: Drawing, ids: ReadonlySet<string>): { box: Box | null; widest: number } {
    if (this.around?.drawing === drawing && this.around.ids === ids) return this.around;
    this.follow(drawing);
    let box: Box | null = null;
    let widest = 0;
    for (const id of ids) {
      const entry = this.boxes.entryOf(id);
      if (!entry) continue;
      box = box ? joinBoxes(box, entry) : entry;
      const { style, marks } = entry.line;
      widest = Math.max(widest, style.width, ...(marks ?? []).map((m) => Math.max(m.left, m.right)));
    }
    this.around = { drawing, ids, box, widest };
    return this.around;
  }

  /** Lines whose control points' boxes meet a box, with those. */
  linesIn(drawing: Drawing, box: Box): (Box & { readonly line: Line })[] {
    this.follow(drawing);
    return this.boxes.search(box);
  }

  /** The nearest place on a line within `reach` page units of `p`; of lines that `wanted` lets through. */
  nearest(drawing: Drawing, p: Point, reach: number, wanted: (l: Line) => boolean = () => true): Hit | null {
    return this.nearestWithin(drawing, p, reach, () => reach, wanted);
  }

  /** The same, of each line within a reach of its own, at most `most`. */
  private nearestWithin(
    drawing: Drawing,
    p: Point,
    most: number,
    reachOf: (l: Line) => number,
    wanted: (l: Line) => boolean = () => true,
  ): Hit | null {
    this.follow(drawing);
    const around = growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, most);
    const candidates: { line: Line; s: Segment; least: number; reach: number }[] = [];
    for (const entry of this.boxes.search(around)) {
      const reach = Math.min(most, reachOf(entry.line));
      if (distanceToBox(entry, p) > reach || !wanted(entry.line)) continue;
      for (const s of segmentsOf(entry)) {
        const least = distanceToBox(s.box, p);
        if (least <= reach) candidates.push({ line: entry.line, s, least, reach });
      }
    }
    candidates.sort((a, b) => a.least - b.least);
    let best: Hit | null = null;
    for (const { line, s, least, reach } of candidates) {
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
    return this.nearestWithin(drawing, p, Math.max(reach, WIDEST_BODY), (l) => l.style.width / 2, wanted);
  }

  /** The lines whose curve or body lies under a place, the nearest first; of the same distance, the upper one. */
  allUnder(drawing: Drawing, p: Point, reach: number): string[] {
    this.follow(drawing);
    const order = new Map(allLines(drawing).map((l, i) => [l.id, i]));
    const around = growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, Math.max(reach, WIDEST_BODY));
    return this.boxes
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
    for (const { line } of this.boxes.search(growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, reach))) {
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
      this.boxes
        .search(region.box)
        .filter(({ line }) => (whole ? liesInRegion : touchesRegion)(line, region))
        .map(({ line }) => line.id),
    );
    return drawing.sheets.flatMap((s) =>
      linesOf(s)
        .filter((l) => found.has(l.id))
        .map((l) => l.id),
    );
  }
}

/** A node near a place. */
export type NodeHit = { line: Line; run: number; node: number; point: Point; distance: number };

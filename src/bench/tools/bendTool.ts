import type { Point } from '@/core';
import { bendSegment, type SegmentRef } from '@/core/edits/bend';
import { findLine } from '@/core/drawing/find';
import { cubicsOf } from '@/core/drawing/run';
import { add, distance, subtract } from '@/core/geometry/point';
import type { Hit } from '../canvas/picking';
import { paintHandles, paintNodes, paintSegment, paintSkeleton } from '../canvas/marks';
import { linesToMark, shownDrawing } from '../state/store';
import type { View } from '../state/view';
import { LineTool } from './lineTool';
import { CLICK, gripFor, LINE_GRIP, type HandEvent, type Hint, type PointerShape, type Tool } from './tool';

type Gesture = { ref: SegmentRef; t: number; from: HandEvent; offset: Point; moved: boolean; last: HandEvent };

/** Bend: a segment taken anywhere and dragged runs through the pointer; a straight one as well. */
export class BendTool extends LineTool<Gesture> implements Tool {
  private under(e: HandEvent): Hit | null {
    const reach = gripFor(e, LINE_GRIP) * this.context.unit();
    const hit = this.context.picking.under(this.bench.getState().drawing, e.page, reach);
    return hit && hit.line.runs[hit.run].nodes.length > 1 ? hit : null;
  }

  press(e: HandEvent): void {
    const hit = this.under(e);
    this.bench.choose(hit ? [hit.line.id] : []);
    if (hit) {
      const ref = { line: hit.line.id, run: hit.run, segment: hit.segment };
      this.gesture = { ref, t: hit.t, from: e, offset: subtract(hit.point, e.page), moved: false, last: e };
    }
    this.context.repaint();
  }

  private edit(g: Gesture) {
    const to = add(g.last.page, g.offset);
    return bendSegment(this.bench.getState().drawing, g.ref, g.t, to, g.last.shift);
  }

  move(e: HandEvent): void {
    this.at = e;
    const g = this.gesture;
    if (!g) return;
    g.last = e;
    g.moved ||= distance(e.screen, g.from.screen) >= CLICK;
    if (g.moved) this.bench.show(this.edit(g));
    this.context.repaint();
  }

  release(e: HandEvent): void {
    const g = this.gesture;
    this.gesture = null;
    if (g?.moved) this.bench.commit(this.edit({ ...g, last: e }));
    this.context.repaint();
  }

  key = (key: string): boolean => key === 'Escape' && this.escape();

  pointer(): PointerShape {
    return this.gesture || (this.at && this.under(this.at)) ? 'bend' : 'arrow';
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    const shown = shownDrawing(s);
    const hit = this.at && !this.gesture ? this.under(this.at) : null;
    for (const id of new Set([...linesToMark(s), ...(hit ? [hit.line.id] : [])])) {
      const found = findLine(shown, id);
      if (!found) continue;
      paintSkeleton(ctx, view, found.line, found.sheet.tag);
      if (s.lines.size <= 20) paintNodes(ctx, view, found.line, found.sheet.tag);
    }
    const ref = this.gesture?.ref ?? (hit && { line: hit.line.id, run: hit.run, segment: hit.segment });
    const found = ref && findLine(shown, ref.line);
    const run = ref && found?.line.runs[ref.run];
    if (!ref || !found || !run) return;
    paintSegment(ctx, view, cubicsOf(run)[ref.segment], found.sheet.tag);
    if (!this.gesture) return;
    paintHandles(ctx, view, { ...run.nodes[ref.segment], in: null });
    paintHandles(ctx, view, { ...run.nodes[(ref.segment + 1) % run.nodes.length], out: null });
  }

  hints(): Hint[] {
    if (this.gesture)
      return [
        { keys: 'Shift', what: 'bend it evenly, alike at both ends' },
        { keys: 'Escape', what: 'leave it as it was' },
      ];
    if (this.at && this.under(this.at)) return [{ keys: 'drag', what: 'bend this segment through the pointer' }];
    return [
      { keys: 'drag a segment', what: 'bend it; a straight one too' },
      { keys: 'A', what: 'back to the pen' },
      { keys: 'Space drag', what: 'pan' },
    ];
  }
}

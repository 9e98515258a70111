import type { Guide, Point } from '@/core';
import { snapped } from '@/core/drawing/snap';
import { mirrorThrough } from '@/core/edits/mirrored';
import { setPage } from '@/core/edits/page';
import { distance, subtract } from '@/core/geometry/point';
import { mirrorInHand } from '../state/mirroring';
import type { Bench } from '../state/store';
import { toPage, toScreen } from '../state/view';
import { pointIn } from './pointIn';
import { SNAP } from '../tools/tool';
import { mirrorBead } from './mirrorMarks';
import { RULER } from './rulers';

const NEAR = 5;
/** The bead of the mirror is taken from so near, CSS px. */
const BEAD = 12;

/**
 * The hand on guides: pulled out of a ruler, moved with the Place tool, put back into the ruler to be rid of them; and on
 * the bead of the mirror. Hears of a press before the tool does, and keeps what is its own.
 */
export class GuideHand {
  private held: { axis: 'x' | 'y'; index: number | null } | 'mirror' | null = null;
  private readonly stop = new AbortController();

  constructor(
    private readonly bench: Bench,
    private readonly element: HTMLElement,
    private readonly repaint: () => void,
  ) {
    const options = { signal: this.stop.signal, capture: true };
    element.addEventListener('pointerdown', this.down, options);
    element.addEventListener('pointermove', this.move, options);
    element.addEventListener('pointerup', this.up, options);
    element.addEventListener('pointercancel', this.cancelled, options);
  }

  dispose(): void {
    this.stop.abort();
  }

  private readonly down = (e: PointerEvent): void => {
    const { rulers, reading, tool, drawing, view } = this.bench.getState();
    if (e.button !== 0 || reading) return;
    const p = pointIn(this.element, e);
    const inTop = rulers && p.y < RULER;
    const inLeft = rulers && p.x < RULER;
    if (this.isOnMirror(p)) this.held = 'mirror';
    else if (inTop || inLeft) this.held = { axis: inTop ? 'y' : 'x', index: null };
    else if (tool === 'place') {
      const index = drawing.page.guides.findIndex(
        (g) => Math.abs(toScreen(view, { x: g.at, y: g.at })[g.axis] - p[g.axis]) <= NEAR,
      );
      if (index >= 0) this.held = { axis: drawing.page.guides[index].axis, index };
    }
    if (!this.held) return;
    this.element.setPointerCapture(e.pointerId);
    e.stopImmediatePropagation();
  };

  private readonly move = (e: PointerEvent): void => {
    if (!this.held) return;
    e.stopImmediatePropagation();
    const p = pointIn(this.element, e);
    if (this.held === 'mirror') this.moveMirror(p);
    else this.bench.show(this.edit(p, this.held));
    this.repaint();
  };

  private readonly up = (e: PointerEvent): void => {
    if (!this.held) return;
    e.stopImmediatePropagation();
    const { held } = this;
    this.held = null;
    if (held === 'mirror') return;
    const edit = this.edit(pointIn(this.element, e), held);
    this.bench.show(null);
    this.bench.commit(edit);
    this.repaint();
  };

  private readonly cancelled = (): void => {
    if (!this.held) return;
    this.held = null;
    this.bench.show(null);
  };

  private isOnMirror(p: Point): boolean {
    const s = this.bench.getState();
    const mirror = mirrorInHand(s);
    return mirror !== null && distance(mirrorBead(s, mirror), p) <= BEAD;
  }

  /** The axis, or the point, goes with its bead; it keeps to the page's middle, to guides and the grid. */
  private moveMirror(p: Point): void {
    const { mirror, view, drawing, window } = this.bench.getState();
    if (!mirror) return;
    const { page } = drawing;
    const off = subtract(mirrorBead({ view, drawing, window }, mirror), toScreen(view, mirror.at));
    const middle: Guide[] = [
      { axis: 'x', at: page.width / 2 },
      { axis: 'y', at: page.height / 2 },
    ];
    const ruled = { ...page, guides: [...page.guides, ...middle] };
    const at = snapped(ruled, toPage(view, subtract(p, off)), SNAP / view.scale);
    this.bench.setState({ mirror: mirrorThrough(mirror, at) });
  }

  /** The guides with the held one where the hand is; without it where that is the ruler. */
  private edit(p: Point, { axis, index }: { axis: 'x' | 'y'; index: number | null }) {
    const { drawing, view } = this.bench.getState();
    const guides: Guide[] = drawing.page.guides.filter((_, i) => i !== index);
    const isBack = p[axis] < RULER;
    const at = Math.round(toPage(view, p)[axis] * 1000) / 1000;
    const label = isBack ? 'Take guide away' : index === null ? 'Add guide' : 'Move guide';
    return setPage(drawing, { guides: isBack ? guides : [...guides, { axis, at }] }, label);
  }
}

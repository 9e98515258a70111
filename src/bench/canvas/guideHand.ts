import type { Guide } from '@/core';
import { setPage } from '@/core/edits/page';
import type { Bench } from '../state/store';
import { toPage, toScreen } from '../state/view';
import { pointIn } from './pointIn';
import { RULER } from './rulers';

const NEAR = 5;

/**
 * The hand on guides: pulled out of a ruler, moved with the Place tool, put back into the ruler to be rid of them. Hears
 * of a press before the tool does, and keeps what is its own.
 */
export class GuideHand {
  private held: { axis: 'x' | 'y'; index: number | null } | null = null;
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
    if (inTop || inLeft) this.held = { axis: inTop ? 'y' : 'x', index: null };
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
    this.bench.show(this.edit(pointIn(this.element, e)));
    this.repaint();
  };

  private readonly up = (e: PointerEvent): void => {
    if (!this.held) return;
    e.stopImmediatePropagation();
    const edit = this.edit(pointIn(this.element, e));
    this.held = null;
    this.bench.show(null);
    this.bench.commit(edit);
    this.repaint();
  };

  private readonly cancelled = (): void => {
    if (!this.held) return;
    this.held = null;
    this.bench.show(null);
  };

  /** The guides with the held one where the hand is; without it where that is the ruler. */
  private edit(p: { x: number; y: number }) {
    const { drawing, view } = this.bench.getState();
    const { axis, index } = this.held!;
    const guides: Guide[] = drawing.page.guides.filter((_, i) => i !== index);
    const isBack = p[axis] < RULER;
    const at = Math.round(toPage(view, p)[axis] * 1000) / 1000;
    const label = isBack ? 'Take guide away' : index === null ? 'Add guide' : 'Move guide';
    return setPage(drawing, { guides: isBack ? guides : [...guides, { axis, at }] }, label);
  }
}

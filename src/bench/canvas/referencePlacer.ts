import Konva from 'konva';
import { setReference } from '@/core/change/referenceEdits';
import { referenceOf } from '@/core/drawing/find';
import type { Bench } from '../state/store';
import { toPage, toScreen } from '../state/view';

/** The frame around a chosen, unlocked reference, by which it is moved and scaled with its proportions kept. */
export class ReferencePlacer {
  private readonly handle = new Konva.Rect({ draggable: true, fill: 'rgba(0,0,0,0)' });
  private readonly frame = new Konva.Transformer({
    rotateEnabled: false,
    keepRatio: true,
    flipEnabled: false,
    enabledAnchors: ['top-left', 'top-right', 'bottom-left', 'bottom-right'],
    anchorFill: '#f4c20d',
    anchorStroke: '#27241d',
    anchorSize: 11,
    anchorCornerRadius: 6,
    borderStroke: '#27241d',
    borderDash: [5, 4],
    ignoreStroke: true,
    // Alt would scale about the middle here; proportions are kept either way.
    centeredScaling: false,
  });
  private shown: string | null = null;

  constructor(
    private readonly bench: Bench,
    private readonly layer: Konva.Layer,
  ) {
    this.frame.nodes([this.handle]);
    this.handle.on('dragmove transform', () => this.bench.show(this.edit()));
    this.handle.on('dragend transformend', () => {
      this.bench.commit(this.edit());
      this.place();
    });
    layer.add(this.handle, this.frame);
    this.place();
  }

  private edit() {
    const { drawing, view } = this.bench.getState();
    const h = this.handle;
    const at = toPage(view, { x: h.x(), y: h.y() });
    const width = (h.width() * h.scaleX()) / view.scale;
    const r = referenceOf(drawing, this.shown!)!;
    const k = width / r.width;
    const moved = Math.abs(k - 1) < 1e-9 ? { at } : { at, width: r.width * k, height: r.height * k };
    return setReference(drawing, r.id, moved, 'width' in moved ? 'Scale picture' : 'Move picture');
  }

  /** Lays the frame where the reference is; hidden when none is in hand. */
  place(): void {
    const s = this.bench.getState();
    const r = s.tool === 'place' && s.reference ? referenceOf(s.drawing, s.reference) : undefined;
    const visible = !!r && !r.locked && r.visible && !s.reading;
    this.shown = visible ? r.id : null;
    this.handle.visible(visible);
    this.frame.visible(visible);
    if (visible && !this.handle.isDragging() && !this.frame.isTransforming()) {
      const at = toScreen(s.view, r.at);
      this.handle.setAttrs({
        x: at.x,
        y: at.y,
        width: r.width * s.view.scale,
        height: r.height * s.view.scale,
        scaleX: 1,
        scaleY: 1,
      });
      this.frame.forceUpdate();
    }
  }

  get isBusy(): boolean {
    return this.handle.isDragging() || this.frame.isTransforming();
  }

  /** Whether a place on the screen belongs to the frame. */
  holds(x: number, y: number): boolean {
    return this.handle.visible() && this.layer.getIntersection({ x, y }) !== null;
  }
}

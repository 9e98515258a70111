import Konva from 'konva/lib/Core';
import { Rect } from 'konva/lib/shapes/Rect';
import { Transformer } from 'konva/lib/shapes/Transformer';
import { setReference } from '@/core/edits/references';
import { referenceOf } from '@/core/drawing/find';
import { middleOf, placedBox } from '@/core/drawing/placement';
import { snapOfBox } from '@/core/drawing/snap';
import { add } from '@/core/geometry/point';
import { SNAP } from '../tools/tool';
import type { Bench } from '../state/store';
import { toPage, toScreen } from '../state/view';

const FIFTEENS = Array.from({ length: 24 }, (_, i) => i * 15);

/** The frame around a chosen, unlocked reference, by which it is moved, scaled and turned. */
export class ReferencePlacer {
  private readonly handle = new Rect({ draggable: true, fill: 'rgba(0,0,0,0)' });
  private readonly frame = new Transformer({
    keepRatio: true,
    shiftBehavior: 'none',
    flipEnabled: false,
    enabledAnchors: ['top-left', 'top-right', 'bottom-left', 'bottom-right'],
    anchorFill: '#f4c20d',
    anchorStroke: '#27241d',
    anchorSize: 11,
    anchorCornerRadius: 6,
    borderStroke: '#27241d',
    borderDash: [5, 4],
    rotateAnchorOffset: 26,
    rotationSnapTolerance: 7.5,
    ignoreStroke: true,
    centeredScaling: false,
  });
  private shown: string | null = null;
  private readonly stop = new AbortController();

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
    // Alt lets the proportions go, Shift turns by steps; both can be pressed and let go in the middle.
    for (const event of ['pointermove', 'keydown', 'keyup'] as const) {
      window.addEventListener(
        event,
        (e) => {
          this.frame.keepRatio(!e.altKey);
          this.frame.rotationSnaps(e.shiftKey ? FIFTEENS : []);
        },
        { capture: true, signal: this.stop.signal },
      );
    }
    layer.add(this.handle, this.frame);
    this.place();
  }

  dispose(): void {
    this.stop.abort();
  }

  private edit() {
    const { drawing, view } = this.bench.getState();
    const h = this.handle;
    const r = referenceOf(drawing, this.shown!)!;
    const middle = toPage(view, { x: h.x(), y: h.y() });
    const [kx, ky] = [Math.abs(h.scaleX()), Math.abs(h.scaleY())];
    const isScaled = Math.abs(kx - 1) > 1e-9 || Math.abs(ky - 1) > 1e-9;
    const [width, height] = isScaled
      ? [(h.width() * kx) / view.scale, (h.height() * ky) / view.scale]
      : [r.width, r.height];
    const rotation = Math.round(h.rotation() * 1000) / 1000;
    const turn = Math.abs(rotation - r.turn) < 1e-6 ? r.turn : ((((rotation + 180) % 360) + 360) % 360) - 180;
    const label = isScaled ? 'Scale picture' : turn !== r.turn ? 'Turn picture' : 'Move picture';
    const at = { x: middle.x - width / 2, y: middle.y - height / 2 };
    // What is only moved is drawn to guides and grid.
    const by =
      isScaled || turn !== r.turn
        ? { x: 0, y: 0 }
        : snapOfBox(drawing.page, placedBox({ ...r, at }), SNAP / view.scale);
    return setReference(drawing, r.id, { at: add(at, by), width, height, turn }, label);
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
      const middle = toScreen(s.view, middleOf(r));
      const [width, height] = [r.width * s.view.scale, r.height * s.view.scale];
      this.handle.setAttrs({
        x: middle.x,
        y: middle.y,
        width,
        height,
        offsetX: width / 2,
        offsetY: height / 2,
        rotation: r.turn,
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

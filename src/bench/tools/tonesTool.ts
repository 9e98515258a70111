import type { Point, Reference } from '@/core';
import { setCorrection } from '@/core/edits/references';
import { pageToShares } from '@/core/drawing/placement';
import { firstCorrections, type CorrectionOf } from '@/core/raster/correction';
import { levelsAt, pickedTone, type Picked } from '@/core/raster/tone';
import { paintNote, paintSnapMark } from '../canvas/marks';
import { prefer, preferences } from '../state/preferences';
import { CorrectionTool, workedOn } from './pictureTool';
import type { HandEvent, Hint, PointerShape, Tool, ToolContext } from './tool';

/** So many pixels each way about the pointer are looked at. */
export const PATCH = 9;

/** The pixels of a picture about a place, given by its shares; null outside of it. */
export type ReadPatch = (bitmap: ImageBitmap, at: Point) => ImageData | null;

export const readPatch: ReadPatch = (bitmap, at) => {
  if (at.x < 0 || at.y < 0 || at.x > 1 || at.y > 1) return null;
  const ctx = new OffscreenCanvas(PATCH, PATCH).getContext('2d', { willReadFrequently: true })!;
  const corner = (share: number, size: number): number =>
    Math.max(0, Math.min(size - PATCH, Math.round(share * size - PATCH / 2)));
  const [x, y] = [corner(at.x, bitmap.width), corner(at.y, bitmap.height)];
  ctx.drawImage(bitmap, x, y, PATCH, PATCH, 0, 0, PATCH, PATCH);
  return ctx.getImageData(0, 0, PATCH, PATCH);
};

const otherThan = (which: 'ink' | 'paper'): 'ink' | 'paper' => (which === 'ink' ? 'paper' : 'ink');

/** Ink and paper picked in the picture itself, which is seen as it is before its tones are set: first the one, then the other. */
export class TonesTool extends CorrectionTool implements Tool {
  constructor(
    context: ToolContext,
    private readonly read: ReadPatch = readPatch,
  ) {
    super(context, 'levels');
  }

  protected isHolding = (): boolean => false;

  /** What a press would pick under the hand; null beside the picture, and until there is one to look at. */
  private picked(e: HandEvent, r: Reference): Picked | null {
    const { pickTone: next } = preferences.getState();
    const bitmap = this.context.picture(r);
    const patch = bitmap && this.read(bitmap, pageToShares(r, e.page));
    return patch && pickedTone(patch, e.alt ? otherThan(next) : next);
  }

  private own(): CorrectionOf<'levels'> {
    return workedOn(this.bench)?.corrections.find((c) => c.kind === 'levels') ?? firstCorrections.levels;
  }

  press(e: HandEvent): void {
    const [r, seen] = [workedOn(this.bench), this.before()];
    const picked = seen && this.picked(e, seen);
    if (!r || !picked) return;
    const { which, tone } = picked;
    const levels = { ...levelsAt(this.own(), which, tone), on: true };
    this.bench.commit(setCorrection(this.bench.getState().drawing, r.id, levels, `Pick ${which}`));
    prefer({ pickTone: otherThan(which) });
    this.context.repaint();
  }

  move(e: HandEvent): void {
    this.hover(e);
  }

  release(): void {}
  cancel(): void {}

  pointer = (): PointerShape => 'shape';

  paint(ctx: CanvasRenderingContext2D): void {
    const [r, e] = [this.before(), this.at];
    const picked = r && e && this.picked(e, r);
    if (!e || !picked) return;
    const { which, tone } = picked;
    paintSnapMark(ctx, e.screen, which);
    paintNote(
      ctx,
      { x: e.screen.x + 16, y: e.screen.y + 12 },
      `${which === 'ink' ? 'darker' : 'lighter'} than ${tone} of 255`,
    );
  }

  hints(): Hint[] {
    if (!workedOn(this.bench)) return [{ keys: 'drop or paste a picture', what: 'lay it under the work' }];
    const next = preferences.getState().pickTone;
    return [
      {
        keys: 'click',
        what: next === 'ink' ? 'on a stroke: what is as dark is ink' : 'on bare paper: what is as light is paper',
      },
      { keys: 'Alt click', what: next === 'ink' ? 'paper instead' : 'ink instead' },
      { keys: 'Enter', what: 'see what comes of it' },
    ];
  }
}

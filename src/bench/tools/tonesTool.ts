import type { Point, Reference } from '@/core';
import { setCorrection } from '@/core/edits/references';
import { pageToShares } from '@/core/drawing/placement';
import { firstCorrections, type CorrectionOf } from '@/core/raster/correction';
import { levelsAt, pickedTone } from '@/core/raster/tone';
import { paintNote, paintSnapMark } from '../canvas/marks';
import { prefer, preferences } from '../state/preferences';
import { CorrectionTool, workedOn } from './pictureTool';
import type { HandEvent, Hint, PointerShape, Tool, ToolContext } from './tool';

/** So many pixels each way about the pointer are looked at. */
const PATCH = 9;

/** The pixels of a picture about a place, given by its shares; null outside of it. */
export type ReadPatch = (bitmap: ImageBitmap, at: Point) => ImageData | null;

const readPatch: ReadPatch = (bitmap, at) => {
  if (at.x < 0 || at.y < 0 || at.x > 1 || at.y > 1) return null;
  const ctx = new OffscreenCanvas(PATCH, PATCH).getContext('2d', { willReadFrequently: true })!;
  const corner = (share: number, size: number): number =>
    Math.max(0, Math.min(size - PATCH, Math.round(share * size - PATCH / 2)));
  const [x, y] = [corner(at.x, bitmap.width), corner(at.y, bitmap.height)];
  ctx.drawImage(bitmap, x, y, PATCH, PATCH, 0, 0, PATCH, PATCH);
  return ctx.getImageData(0, 0, PATCH, PATCH);
};

/** Ink and paper picked in the picture itself, which is seen as it is before its tones are set: first the one, then the other. */
export class TonesTool extends CorrectionTool implements Tool {
  constructor(
    context: ToolContext,
    private readonly read: ReadPatch = readPatch,
  ) {
    super(context, 'levels');
  }

  protected isHolding = (): boolean => false;

  private which(e: HandEvent): 'ink' | 'paper' {
    const next = preferences.getState().pickTone;
    if (!e.alt) return next;
    return next === 'ink' ? 'paper' : 'ink';
  }

  /** The tone under the hand; null beside the picture, and until there is one to look at. */
  private tone(e: HandEvent, r: Reference): number | null {
    const bitmap = this.context.picture(r);
    const patch = bitmap && this.read(bitmap, pageToShares(r, e.page));
    return patch && pickedTone(patch, this.which(e));
  }

  private own(): CorrectionOf<'levels'> {
    return workedOn(this.bench)?.corrections.find((c) => c.kind === 'levels') ?? firstCorrections.levels;
  }

  press(e: HandEvent): void {
    const [r, seen] = [workedOn(this.bench), this.before()];
    const tone = seen && this.tone(e, seen);
    if (!r || tone === null) return;
    const which = this.which(e);
    const levels = { ...levelsAt(this.own(), which, tone), on: true };
    this.bench.commit(setCorrection(this.bench.getState().drawing, r.id, levels, `Pick ${which}`));
    prefer({ pickTone: which === 'ink' ? 'paper' : 'ink' });
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
    const tone = r && e && this.tone(e, r);
    if (!e || tone === null) return;
    const which = this.which(e);
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

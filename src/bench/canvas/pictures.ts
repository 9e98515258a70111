import type { PictureNode } from '@/core/scene/scene';
import { asShown, movesPicture } from '@/core/raster/correction';
import { correct, sourceOf } from '../state/corrections';
import { placeFor, plainPicture, sizes, type PictureSize } from './plainPictures';

/** A placed picture, a reference's or one in the art. */
type Shown = PictureNode['placed'];

/** A reference's picture as it was last corrected, and what is being made of it now. */
type Corrected = { key: string; bitmap: ImageBitmap | null; making: string | null; shape: string };

/** What moves what is in a picture, of all that it is corrected by. */
const shapeOf = (r: Shown): string =>
  JSON.stringify([r.picture, asShown(r).filter((c) => c.on && movesPicture(c.kind))]);

/** Where a picture of one shape was last seen. */
type Place = Pick<Shown, 'at' | 'width' | 'height' | 'turn' | 'flipX' | 'flipY'> & { readonly shape: string };

/**
 * The pictures of references as bitmaps: plain ones in halved sizes, fetched when they are first needed; corrected ones
 * made by the worker, reduced while a hand is moving. Until the newest is made, the one before it is shown.
 */
export class PictureStore {
  private readonly bitmaps = new Map<string, ImageBitmap | 'coming' | 'failed'>();
  private readonly corrected = new Map<string, Corrected>();
  private readonly places = new Map<string, Place>();
  /** Whether the view is on the move: then what is at hand must do, for a finer picture takes much to unpack. */
  isViewMoving = false;

  constructor(
    private readonly onNews: () => void,
    private readonly onFailure: (r: Shown) => void,
  ) {}

  /**
   * The best bitmap at hand for a reference shown `longest` device pixels long; a better one is asked for if need be.
   * `moving`: its corrections are changing under the hand.
   */
  bitmapFor(r: Shown, longest: number, moving: boolean): ImageBitmap | null {
    const done = asShown(r).filter((c) => c.on);
    if (done.length === 0) return this.plainFor(r, longest);
    // Until a first correction is made the picture is seen as it was, unless it would be of another shape.
    const isAlike = !done.some((c) => movesPicture(c.kind));
    return this.correctedFor(r, moving) ?? (isAlike ? this.plainFor(r, longest) : null);
  }

  /**
   * A reference as it can be seen by now: its bitmap, and where that belongs. While one of another shape is being made, the
   * one before stays where it was.
   */
  seen<P extends Shown>(r: P, longest: number, moving: boolean): { placed: P; bitmap: ImageBitmap | null } {
    const bitmap = this.bitmapFor(r, longest, moving) ?? this.plainFor(r, longest);
    const corrected = this.corrected.get(r.id);
    const of =
      bitmap === null ? null : bitmap === corrected?.bitmap ? corrected.shape : shapeOf({ ...r, corrections: [] });
    const shape = shapeOf(r);
    const last = this.places.get(r.id);
    if (of !== shape) return last?.shape === of ? { placed: { ...r, ...last }, bitmap } : { placed: r, bitmap: null };
    const { at, width, height, turn, flipX, flipY } = r;
    this.places.set(r.id, { at, width, height, turn, flipX, flipY, shape });
    return { placed: r, bitmap };
  }

  /** The same for what is painted at a scale, device px a page unit. */
  at =
    (scale: number) =>
    ({ placed }: PictureNode): ImageBitmap | null =>
      this.bitmapFor(placed, Math.max(placed.width, placed.height) * scale, false);

  private correctedFor(r: Shown, moving: boolean): ImageBitmap | null {
    let entry = this.corrected.get(r.id);
    if (!entry) this.corrected.set(r.id, (entry = { key: '', bitmap: null, making: null, shape: '' }));
    const keyFor = (s: 'preview' | 'whole'): string => JSON.stringify([r.picture, s, asShown(r)]);
    // What moves may be something else than the corrections: then the whole picture is there already.
    const size = moving && entry.key !== keyFor('whole') ? 'preview' : 'whole';
    const key = keyFor(size);
    if (entry.key !== key && entry.making === null) {
      entry.making = key;
      void this.make(r, size, entry, key);
    }
    return entry.bitmap;
  }

  private async make(r: Shown, size: 'preview' | 'whole', entry: Corrected, key: string): Promise<void> {
    try {
      const bitmap = await correct.render(sourceOf(r), asShown(r), size);
      entry.bitmap?.close();
      entry.bitmap = bitmap;
      entry.shape = shapeOf(r);
    } catch {
      this.onFailure(r);
    }
    entry.key = key;
    entry.making = null;
    // What was asked for meanwhile is asked for again by the next frame.
    this.onNews();
  }

  private plainFor(r: Shown, longest: number): ImageBitmap | null {
    const wanted = placeFor(longest);
    // The next finer one, or else the least coarse.
    const byUse = [...sizes.slice(wanted), ...sizes.slice(0, wanted).reverse()];
    const at = byUse.findIndex(({ size }) => this.bitmaps.get(`${r.picture}-${size}`) instanceof ImageBitmap);
    if (at !== 0 && !(at > 0 && this.isViewMoving)) this.load(r, byUse[0].size);
    return at < 0 ? null : (this.bitmaps.get(`${r.picture}-${byUse[at].size}`) as ImageBitmap);
  }

  private load(r: Shown, size: PictureSize): void {
    const key = `${r.picture}-${size}`;
    if (this.bitmaps.has(key)) return;
    this.bitmaps.set(key, 'coming');
    void this.fetch(r, size, key);
  }

  private async fetch(r: Shown, size: PictureSize, key: string): Promise<void> {
    try {
      this.bitmaps.set(key, await plainPicture(r.picture, size));
      this.onNews();
    } catch {
      this.bitmaps.set(key, 'failed');
      setTimeout(() => this.bitmaps.delete(key), 5_000);
      this.onFailure(r);
    }
  }

  dispose(): void {
    for (const b of this.bitmaps.values()) if (b instanceof ImageBitmap) b.close();
    for (const { bitmap } of this.corrected.values()) bitmap?.close();
  }
}

import type { Box, Change, Drawing } from '@/core';
import { changeText, isLong } from '@/core/change/changeText';
import { growBox, holdsBox } from '@/core/geometry/box';
import type { Looks } from '@/painting/paintLine';
import { TILE, tileKey, type FromPainter } from '@/workers/tileProtocol';
import { bytesOf } from '../state/opening';
import type { Size, View } from '../state/view';
import { LayerTiles } from './layerTiles';
import { takePainters } from './painters';
import { showAll, shownTiles, wishOf, type PaintedTile } from './wantedTiles';
import { whenIdle } from '@/ui/whenIdle';

/** Painted tiles of one scale (device pixels a page unit). */
type Layer = {
  scale: number;
  tiles: Map<string, PaintedTile>;
};

/** Rings of tiles that are painted beyond the window, so that a pan finds them ready. */
const MARGIN = 1;
const REST_MS = 40;
/** What takes longer to paint than this, ms, does not come while a hand zooms in. */
const SOON_MS = 100;

/**
 * The main thread's side of the painter: holds the tiles, asks for those that the view needs, and knows which lines
 * are still missing from them. While the view is being zoomed the old tiles are shown at the new size; new ones are
 * asked for when the zoom rests, or has left 0.66 to 2: smaller, and the ring around the window would not fill it;
 * larger, and it would be coarse, which it is left to be where new ones take long: they would only be in the hand's way.
 */
export class TileBoard {
  private readonly painters = takePainters();
  private shown: Layer = { scale: 0, tiles: new Map() };
  private coming: Layer | null = null;
  readonly layers = new LayerTiles();
  private near: Box | null = null;
  private chosen: ReadonlySet<string> | null = null;
  private hidden = '';
  private hiding = 0;
  private lastWish = '';
  private lastScale = 0;
  private askedAt = 0;
  /** How long the last tiles of a scale took until they were shown, ms. */
  private took = 0;
  private restTimer: ReturnType<typeof setTimeout> | undefined;
  private stopWaiting: (() => void) | null = null;

  constructor(
    private readonly onNews: () => void,
    onFailure: (why: string) => void,
  ) {
    this.painters.listen({
      onFailure,
      onAnswer: (answer) => {
        this.hear(answer);
        this.onNews();
      },
    });
  }

  private hear(answer: FromPainter): void {
    if (answer.kind === 'layer') this.layers.receive(answer);
    else if (answer.kind === 'tile') this.receive(answer);
  }

  load(drawing: Drawing): number {
    const bytes = bytesOf(drawing);
    return bytes ? this.painters.read(bytes) : this.painters.tell({ kind: 'load', drawing });
  }

  /**
   * A change. A long one goes as text, written when it is told: that is copied at once, where its parts would be one by one.
   * `isSeen`: what it does to very many lines is seen already, so that there is no haste to paint it.
   */
  change(change: Change, isSeen: boolean): number {
    if (isSeen) this.painters.oneByOne();
    if (!isLong(change)) return this.painters.tell({ kind: 'change', change });
    return this.painters.tell(() => ({ kind: 'change', change: changeText(change) }));
  }

  /** Leaves lines out of the tiles; the bench draws them. */
  hide(lines: string[]): number {
    const key = lines.join();
    if (key === this.hidden) return this.hiding;
    this.hidden = key;
    this.near = null;
    this.layers.clear('over');
    return (this.hiding = this.painters.tell({ kind: 'hide', lines }));
  }

  /** Where the lines that are left out are seen just now: what lies over them is wanted there, and some way around. */
  isNear(box: Box): void {
    if (this.near && holdsBox(this.near, box)) return;
    this.near = growBox(box, Math.max(box.maxX - box.minX, box.maxY - box.minY, 100) / 2);
    this.painters.near({ kind: 'near', box: this.near });
  }

  /** Very many lines are chosen, or none: they are painted by themselves too. */
  choose(lines: ReadonlySet<string> | null): void {
    if (lines === this.chosen) return;
    if (!lines && !this.chosen) return;
    this.chosen = lines;
    this.layers.clear('chosen');
    this.layers.clear('marks');
    this.painters.tell({ kind: 'choose', lines: [...(lines ?? [])] });
  }

  /** How lines are seen, and the one sheet that is seen alone. */
  look = (looks: Looks, solo: string | null): number => this.painters.tell({ kind: 'look', looks, solo });

  /** Whether the tiles show all that was sent up to `order`. */
  shows = (order: number): boolean => this.painters.shows(order);

  dispose(): void {
    clearTimeout(this.restTimer);
    this.stopWaiting?.();
    this.painters.end();
    for (const set of [this.shown, this.coming]) set?.tiles.forEach((t) => t.bitmap.close());
  }

  private receive({ scale, column, row, part, bitmap }: Extract<FromPainter, { kind: 'tile' }>): void {
    const set = this.coming?.scale === scale ? this.coming : this.shown.scale === scale ? this.shown : null;
    if (!set) return bitmap.close();
    const key = tileKey(column, row);
    set.tiles.get(key)?.bitmap.close();
    set.tiles.set(key, { column, row, part, bitmap });
  }

  /** Asks for what a view needs. Called with every frame; asks only when something is new. */
  see(view: View, window: Size, ratio: number): void {
    const scale = view.scale * ratio;
    if (scale !== this.lastScale) {
      this.lastScale = scale;
      clearTimeout(this.restTimer);
      this.restTimer = setTimeout(() => this.want(view, window, scale), REST_MS);
      const base = this.coming?.scale ?? this.shown.scale;
      const k = base === 0 ? 0 : scale / base;
      if (k > 0.66 && (k < 2 || this.took > SOON_MS)) return;
      // On its way to another scale: what is asked for now is soon asked for anew.
      return this.want(view, window, scale, base > 0);
    } else if (scale !== (this.coming?.scale ?? this.shown.scale)) {
      // Panned while the zoom comes to rest: the timer's view would be an old one.
      clearTimeout(this.restTimer);
      this.restTimer = setTimeout(() => this.want(view, window, scale), REST_MS);
      return;
    }
    this.want(view, window, scale);
  }

  private want(view: View, window: Size, scale: number, passing = false): void {
    const key = [scale, passing, ...Object.values(shownTiles(view, window, scale))].join();
    if (key === this.lastWish) return;
    this.lastWish = key;
    const wish = wishOf(view, window, scale, passing ? 0 : MARGIN);
    if (scale !== this.shown.scale) {
      if (this.coming?.scale !== scale) {
        this.coming?.tiles.forEach((t) => t.bitmap.close());
        this.coming = { scale, tiles: new Map() };
        this.askedAt = performance.now();
      }
    } else if (this.coming) {
      this.coming.tiles.forEach((t) => t.bitmap.close());
      this.coming = null;
    }
    const keep = new Set(wish.tiles.map(([c, r]) => tileKey(c, r)));
    const current = this.coming ?? this.shown;
    for (const [key, tile] of current.tiles) {
      if (keep.has(key)) continue;
      tile.bitmap.close();
      current.tiles.delete(key);
    }
    this.painters.want(wish, passing);
    for (const answer of this.painters.takeEarly()) this.hear(answer);
  }

  /** Paints the tiles for a view. The context is in device pixels. */
  paint(ctx: CanvasRenderingContext2D, view: View, window: Size, ratio: number, still: boolean): void {
    if (this.coming && this.covers(this.coming, view, window)) {
      this.shown.tiles.forEach((t) => t.bitmap.close());
      [this.shown, this.coming] = [this.coming, null];
      this.took = performance.now() - this.askedAt;
      // What is seen first was painted by those that have begun.
      this.stopWaiting ??= whenIdle(() => this.painters.wake());
    }
    const scale = view.scale * ratio;
    const k = scale / (this.shown.scale || 1);
    const [x, y] = [Math.round(view.x * ratio), Math.round(view.y * ratio)];
    // While a hand zooms, speed counts for more than smooth edges.
    ctx.imageSmoothingEnabled = k !== 1 && still;
    ctx.imageSmoothingQuality = 'low';
    const side = TILE * k;
    for (const { column, row, bitmap } of this.shown.tiles.values()) {
      const [left, top] = [x + column * side, y + row * side];
      if (left > window.width * ratio || top > window.height * ratio || left + side < 0 || top + side < 0) continue;
      if (k === 1) ctx.drawImage(bitmap, left, top);
      else {
        // Edges on whole pixels, or seams would show between scaled tiles.
        const [l, t, r, b] = [Math.round(left), Math.round(top), Math.round(left + side), Math.round(top + side)];
        ctx.drawImage(bitmap, l, t, r - l, b - t);
      }
    }
    ctx.imageSmoothingEnabled = true;
  }

  /** Whether what is on the screen is painted for just this view. */
  isSharp = (view: View, window: Size, ratio: number): boolean =>
    !this.coming && this.shown.scale === view.scale * ratio && this.covers(this.shown, view, window);

  private covers = ({ tiles, scale }: Layer, view: View, window: Size): boolean => showAll(tiles, view, window, scale);
}

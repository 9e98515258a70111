import type { Box, Change, Drawing } from '@/core';
import type { Looks } from '@/workers/paintLine';
import { TILE, tileKey, type FromPainter, type ToPainter } from '@/workers/tileProtocol';
import { growBox, holdsBox } from '@/core/geometry/box';
import { shownBox, type Size, type View } from '../state/view';
import { bytesOf } from '../state/api';
import { LayerTiles } from './layerTiles';

/** Painted tiles of one scale (device pixels a page unit). */
type Layer = { scale: number; tiles: Map<string, { column: number; row: number; bitmap: ImageBitmap }> };

/** Rings of tiles that are painted beyond the window, so that a pan finds them ready. */
const MARGIN = 1;
const REST_MS = 40;
/** Painters that share the tiles between them, like the fields of a chessboard. */
const PAINTERS = Math.min(2, Math.max(1, navigator.hardwareConcurrency || 1));

const painter = (): Worker => new Worker(new URL('../../workers/tiles.worker.ts', import.meta.url), { type: 'module' });

/**
 * The main thread's side of the painter: holds the tiles, asks for those that the view needs, and knows which lines
 * are still missing from them. While the view is being zoomed the old tiles are shown at the new size; new ones are
 * asked for when the zoom rests, or has left 0.66 to 1.5.
 */
export class TileBoard {
  private readonly painters = Array.from({ length: PAINTERS }, painter);
  private shown: Layer = { scale: 0, tiles: new Map() };
  private coming: Layer | null = null;
  private order = 0;
  readonly layers = new LayerTiles();
  private near: Box | null = null;
  private chosen: ReadonlySet<string> | null = null;
  private readonly caughtUp = this.painters.map(() => 0);
  private hidden = '';
  private lastWish = '';
  private lastScale = 0;
  private restTimer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly onNews: () => void,
    onFailure: (why: string) => void,
  ) {
    this.painters.forEach((worker, i) => {
      worker.onmessage = ({ data }: MessageEvent<FromPainter>) => {
        if (data.kind === 'failed') return onFailure(data.why);
        if (data.kind === 'caughtUp') this.caughtUp[i] = data.order;
        else if (data.kind === 'layer') this.layers.receive(data);
        else this.receive(data);
        this.onNews();
      };
      worker.onerror = (e) => onFailure(e.message);
    });
  }

  load(drawing: Drawing): number {
    const bytes = bytesOf(drawing);
    if (!bytes) return this.send({ kind: 'load', order: ++this.order, drawing });
    const order = ++this.order;
    for (const worker of this.painters) {
      const own = bytes.slice(0);
      worker.postMessage({ kind: 'read', order, bytes: own } satisfies ToPainter, [own]);
    }
    return order;
  }

  change = (change: Change): number => this.send({ kind: 'change', order: ++this.order, change });

  /** Leaves lines out of the tiles; the bench draws them. */
  hide(lines: string[]): number {
    const key = lines.join();
    if (key === this.hidden) return this.order;
    this.hidden = key;
    this.near = null;
    this.layers.clear('over');
    return this.send({ kind: 'hide', order: ++this.order, lines });
  }

  /** Where the lines that are left out are seen just now: what lies over them is wanted there, and some way around. */
  isNear(box: Box): void {
    if (this.near && holdsBox(this.near, box)) return;
    this.near = growBox(box, Math.max(box.maxX - box.minX, box.maxY - box.minY, 100) / 2);
    for (const worker of this.painters) worker.postMessage({ kind: 'near', box: this.near } satisfies ToPainter);
  }

  /** Very many lines are chosen, or none: they are painted by themselves too. */
  choose(lines: ReadonlySet<string> | null): void {
    if (lines === this.chosen) return;
    if (!lines && !this.chosen) return;
    this.chosen = lines;
    this.layers.clear('chosen');
    this.layers.clear('marks');
    this.send({ kind: 'choose', order: ++this.order, lines: [...(lines ?? [])] });
  }

  /** How lines are seen, and the one sheet that is seen alone. */
  look = (looks: Looks, solo: string | null): number => this.send({ kind: 'look', order: ++this.order, looks, solo });

  /** Whether the tiles show all that was sent up to `order`. */
  shows = (order: number): boolean => this.caughtUp.every((o) => o >= order);

  dispose(): void {
    clearTimeout(this.restTimer);
    for (const worker of this.painters) worker.terminate();
    for (const set of [this.shown, this.coming]) set?.tiles.forEach((t) => t.bitmap.close());
  }

  private send(message: ToPainter): number {
    for (const worker of this.painters) worker.postMessage(message);
    return this.order;
  }

  private receive({ scale, column, row, bitmap }: Extract<FromPainter, { kind: 'tile' }>): void {
    const set = this.coming?.scale === scale ? this.coming : this.shown.scale === scale ? this.shown : null;
    if (!set) return bitmap.close();
    const key = tileKey(column, row);
    set.tiles.get(key)?.bitmap.close();
    set.tiles.set(key, { column, row, bitmap });
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
      if (k > 0.66 && k < 1.5) return;
    } else if (scale !== (this.coming?.scale ?? this.shown.scale)) {
      // Panned while the zoom comes to rest: the timer's view would be an old one.
      clearTimeout(this.restTimer);
      this.restTimer = setTimeout(() => this.want(view, window, scale), REST_MS);
      return;
    }
    this.want(view, window, scale);
  }

  private want(view: View, window: Size, scale: number): void {
    const box = shownBox(view, window);
    const [left, right] = [Math.floor((box.minX * scale) / TILE), Math.floor((box.maxX * scale) / TILE)];
    const [top, bottom] = [Math.floor((box.minY * scale) / TILE), Math.floor((box.maxY * scale) / TILE)];
    const wish = [scale, left, right, top, bottom].join();
    if (wish === this.lastWish) return;
    this.lastWish = wish;
    const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
    const tiles: [number, number][] = [];
    for (let row = top - MARGIN; row <= bottom + MARGIN; row++) {
      for (let column = left - MARGIN; column <= right + MARGIN; column++) tiles.push([column, row]);
    }
    const ring = ([c, r]: [number, number]) =>
      Math.max(Math.abs(c - cx) - (right - left) / 2, Math.abs(r - cy) - (bottom - top) / 2, 0);
    tiles.sort((a, b) => ring(a) - ring(b));
    if (scale !== this.shown.scale) {
      if (this.coming?.scale !== scale) {
        this.coming?.tiles.forEach((t) => t.bitmap.close());
        this.coming = { scale, tiles: new Map() };
      }
    } else if (this.coming) {
      this.coming.tiles.forEach((t) => t.bitmap.close());
      this.coming = null;
    }
    const keep = new Set(tiles.map(([c, r]) => tileKey(c, r)));
    const current = this.coming ?? this.shown;
    for (const [key, tile] of current.tiles) {
      if (keep.has(key)) continue;
      tile.bitmap.close();
      current.tiles.delete(key);
    }
    this.painters.forEach((worker, i) => {
      const own = tiles.filter(([c, r]) => Math.abs(c + r) % PAINTERS === i);
      worker.postMessage({ kind: 'want', scale, tiles: own } satisfies ToPainter);
    });
  }

  /** Paints the tiles for a view. The context is in device pixels. */
  paint(ctx: CanvasRenderingContext2D, view: View, window: Size, ratio: number, still: boolean): void {
    if (this.coming && this.covers(this.coming, view, window)) {
      this.shown.tiles.forEach((t) => t.bitmap.close());
      [this.shown, this.coming] = [this.coming, null];
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

  private covers(set: Layer, view: View, window: Size): boolean {
    const box = shownBox(view, window);
    for (let row = Math.floor((box.minY * set.scale) / TILE); row <= Math.floor((box.maxY * set.scale) / TILE); row++) {
      for (let c = Math.floor((box.minX * set.scale) / TILE); c <= Math.floor((box.maxX * set.scale) / TILE); c++) {
        if (!set.tiles.has(tileKey(c, row))) return false;
      }
    }
    return true;
  }
}

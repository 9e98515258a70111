import type { Box } from '@/core';
import { boxesMeet, commonBox, holdsBox, joinBoxes } from '@/core/geometry/box';
import type { Painted } from './artIndex';
import { boxOfTile, tileKey, type ToPainter } from './tileProtocol';

/**
 * A painted tile: what part of it is painted at all, null where all of it is; what part is out of date, null where nothing is; and
 * what has come and is not on it yet. Boxes in page units.
 */
export type Tile<Canvas> = {
  readonly column: number;
  readonly row: number;
  readonly canvas: Canvas;
  part: Box | null;
  stale: Box | null;
  fresh: Painted[];
};

/**
 * The tiles that are wanted at a scale, and what of them is to be painted next: what is out of date, for it is being looked at; then
 * of each what is seen in the window, where there is much to paint; then the rest of those, strip by strip; then those around the
 * window.
 */
export class TileSet<Canvas> {
  private tiles = new Map<string, Tile<Canvas>>();
  private wanted: readonly (readonly [number, number])[] = [];
  private seen: Box | null = null;
  private at = 0;

  constructor(
    private readonly makeCanvas: () => Canvas,
    private readonly isMuch: (box: Box) => boolean,
  ) {}

  /** Device pixels a page unit; 0 where nothing is wanted yet. */
  get scale(): number {
    return this.at;
  }

  /** The places that are wanted, by column and row, the most wanted first. */
  get places(): readonly (readonly [number, number])[] {
    return this.wanted;
  }

  want({ scale, tiles, seen }: Extract<ToPainter, { kind: 'want' }>): void {
    if (scale !== this.at) this.tiles = new Map();
    this.at = scale;
    this.wanted = tiles;
    this.seen = seen;
    const keys = new Set(tiles.map(([c, r]) => tileKey(c, r)));
    for (const key of this.tiles.keys()) if (!keys.has(key)) this.tiles.delete(key);
  }

  spoilAll(): void {
    for (const tile of this.tiles.values()) [tile.stale, tile.part] = [this.boxOf(tile), null];
  }

  spoil(box: Box): void {
    for (const tile of this.reachedBy(box)) tile.stale = tile.stale ? joinBoxes(tile.stale, box) : box;
  }

  /** Something has come. */
  lay(item: Painted): void {
    for (const tile of this.reachedBy(item)) tile.fresh.push(item);
  }

  boxOf = ({ column, row }: Pick<Tile<Canvas>, 'column' | 'row'>): Box => boxOfTile(column, row, this.at);

  /** The tile that is to be painted next, where its `stale` says; null where all is done. */
  next(): Tile<Canvas> | null {
    for (const tile of this.tiles.values()) if (tile.stale || tile.fresh.length > 0) return tile;
    return this.begun(true) ?? this.grown() ?? this.begun(false);
  }

  /** A new tile: one that is seen, or any. */
  private begun(isSeen: boolean): Tile<Canvas> | null {
    for (const [column, row] of this.wanted) {
      const key = tileKey(column, row);
      if (this.tiles.has(key)) continue;
      const whole = boxOfTile(column, row, this.at);
      const meets = this.seen !== null && boxesMeet(this.seen, whole);
      if (isSeen && !meets) continue;
      const isCut = meets && !holdsBox(this.seen!, whole) && this.isMuch(whole);
      const part = isCut ? commonBox(this.seen!, whole) : null;
      const tile = { column, row, canvas: this.makeCanvas(), part, stale: part ?? whole, fresh: [] };
      this.tiles.set(key, tile);
      return tile;
    }
    return null;
  }

  /** One whose painted part has grown by a strip. */
  private grown(): Tile<Canvas> | null {
    for (const tile of this.tiles.values()) {
      if (!tile.part) continue;
      const whole = this.boxOf(tile);
      tile.stale = stripBeside(tile.part, whole);
      const part = joinBoxes(tile.part, tile.stale);
      tile.part = holdsBox(part, whole) ? null : part;
      return tile;
    }
    return null;
  }

  private reachedBy = (box: Box): Tile<Canvas>[] =>
    [...this.tiles.values()].filter((tile) => boxesMeet(this.boxOf(tile), box));
}

/** What lies at one side of a part of a box: left and right of it first, above and below it across the whole box. */
function stripBeside(part: Box, whole: Box): Box {
  if (part.minX > whole.minX) return { ...part, minX: whole.minX, maxX: part.minX };
  if (part.maxX < whole.maxX) return { ...part, minX: part.maxX, maxX: whole.maxX };
  if (part.minY > whole.minY) return { ...whole, maxY: part.minY };
  return { ...whole, minY: part.maxY };
}

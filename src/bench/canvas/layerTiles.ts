import type { Box, Point } from '@/core';
import { TILE, tileKey, type FromPainter, type LayerKind } from '@/workers/tileProtocol';
import type { View } from '../state/view';

type LayerTile = Extract<FromPainter, { kind: 'layer' }> & { bitmap: ImageBitmap };

/** What the painters paint beside the tiles, tile by tile; a newer tile takes the place of an older one. */
export class LayerTiles {
  private readonly tiles: Record<LayerKind, Map<string, LayerTile>> = {
    chosen: new Map(),
    marks: new Map(),
    over: new Map(),
  };

  receive(tile: Extract<FromPainter, { kind: 'layer' }>): void {
    const kept = this.tiles[tile.layer];
    // Tiles of another scale are of no more use once one of the new scale has come.
    for (const [key, old] of kept) if (old.scale !== tile.scale) this.close(kept, key, old);
    const key = tileKey(tile.column, tile.row);
    const old = kept.get(key);
    if (old && old.order > tile.order) return tile.bitmap?.close();
    if (old) this.close(kept, key, old);
    if (tile.bitmap) kept.set(key, tile as LayerTile);
  }

  clear(kind: LayerKind): void {
    const kept = this.tiles[kind];
    for (const [key, tile] of kept) this.close(kept, key, tile);
  }

  private close(kept: Map<string, LayerTile>, key: string, tile: LayerTile): void {
    tile.bitmap.close();
    kept.delete(key);
  }

  /** Whether a layer holds anything that was painted before a message. */
  isBefore = (kind: LayerKind, order: number): boolean => [...this.tiles[kind].values()].some((t) => t.order < order);

  /**
   * Paints a layer for a view, each tile moved by what `shift` says for it (page units); within `clip` (page units), if
   * there is one. The context is in device pixels.
   */
  paint(
    ctx: CanvasRenderingContext2D,
    kind: LayerKind,
    view: View,
    ratio: number,
    shift: (order: number) => Point,
    clip: Box | null = null,
  ): void {
    if (this.tiles[kind].size === 0) return;
    const scale = view.scale * ratio;
    ctx.save();
    if (clip) {
      ctx.beginPath();
      ctx.rect(
        view.x * ratio + clip.minX * scale,
        view.y * ratio + clip.minY * scale,
        (clip.maxX - clip.minX) * scale,
        (clip.maxY - clip.minY) * scale,
      );
      ctx.clip();
    }
    for (const tile of this.tiles[kind].values()) {
      const side = (TILE * scale) / tile.scale;
      const by = shift(tile.order);
      const left = Math.round(view.x * ratio + by.x * scale + tile.column * side);
      const top = Math.round(view.y * ratio + by.y * scale + tile.row * side);
      if (left > ctx.canvas.width || top > ctx.canvas.height || left + side < 0 || top + side < 0) continue;
      ctx.drawImage(tile.bitmap, left, top, Math.ceil(side), Math.ceil(side));
    }
    ctx.restore();
  }
}

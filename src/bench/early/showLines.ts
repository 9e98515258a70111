import { TILE, tileKey, type FromPainter } from '@/workers/tileProtocol';
import { showAll, type PaintedTile } from '../canvas/wantedTiles';
import type { WindowView } from '../state/firstSight';

/**
 * Shows what a painter paints of a page where it is seen, at `ratio` device pixels a CSS pixel, as soon as nothing is missing, and
 * what it paints there since (of pictures that come later), until the bench covers it.
 */
export function showLines(into: Element, painter: Worker, { view, window }: WindowView, ratio: number): void {
  const scale = view.scale * ratio;
  const tiles = new Map<string, PaintedTile>();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [window.width * ratio, window.height * ratio];
  const ctx = canvas.getContext('2d')!;
  const lay = ({ data }: MessageEvent<FromPainter>): void => {
    if (!into.checkVisibility()) return painter.removeEventListener('message', lay);
    // One that has no width is closed: the bench has taken it.
    if (data.kind !== 'tile' || data.scale !== scale || data.bitmap.width === 0) return;
    const { column, row, bitmap } = data;
    const [x, y] = [Math.round(view.x * ratio) + column * TILE, Math.round(view.y * ratio) + row * TILE];
    ctx.clearRect(x, y, TILE, TILE);
    ctx.drawImage(bitmap, x, y);
    tiles.set(tileKey(column, row), data);
    if (!canvas.isConnected && showAll(tiles, view, window, scale)) into.replaceChildren(canvas);
  };
  painter.addEventListener('message', lay);
}

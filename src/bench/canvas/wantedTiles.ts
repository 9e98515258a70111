import { commonBox, growBox, holdsBox } from '@/core/geometry/box';
import { boxOfTile, TILE, tileKey, type FromPainter, type ToPainter } from '@/workers/tileProtocol';
import { shownBox, type Size, type View } from '../state/view';

/** The tiles that a view shows at a scale (device px a page unit), by their columns and rows. */
export function shownTiles(view: View, window: Size, scale: number) {
  const box = shownBox(view, window);
  const at = (v: number): number => Math.floor((v * scale) / TILE);
  return { left: at(box.minX), right: at(box.maxX), top: at(box.minY), bottom: at(box.maxY) };
}

/** The tiles that a view wants, with so many rings of tiles around: those in the middle first. */
function wantedTiles(shown: ReturnType<typeof shownTiles>, margin: number): [number, number][] {
  const { left, right, top, bottom } = shown;
  const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
  const tiles: [number, number][] = [];
  for (let row = top - margin; row <= bottom + margin; row++)
    for (let column = left - margin; column <= right + margin; column++) tiles.push([column, row]);
  const ring = ([c, r]: [number, number]) =>
    Math.max(Math.abs(c - cx) - (right - left) / 2, Math.abs(r - cy) - (bottom - top) / 2, 0);
  return tiles.sort((a, b) => ring(a) - ring(b));
}

/** So far around the window, px, tiles are painted with what is seen: a hand that pans a little sees nothing missing. */
const AROUND = 48;

/** What a painter is asked for, so that a view is seen sharp: its tiles, with so many rings of tiles around. */
export const wishOf = (view: View, window: Size, scale: number, margin = 0): Extract<ToPainter, { kind: 'want' }> => ({
  kind: 'want',
  scale,
  tiles: wantedTiles(shownTiles(view, window, scale), margin),
  seen: growBox(shownBox(view, window), AROUND / view.scale),
});

/** A tile as it has come from a painter. */
export type PaintedTile = Pick<Extract<FromPainter, { kind: 'tile' }>, 'column' | 'row' | 'part' | 'bitmap'>;

/** Whether nothing is missing of what a view shows where tiles of a scale have come, by their keys. */
export function showAll(tiles: ReadonlyMap<string, PaintedTile>, view: View, window: Size, scale: number): boolean {
  const seen = shownBox(view, window);
  return wantedTiles(shownTiles(view, window, scale), 0).every(([column, row]) => {
    const tile = tiles.get(tileKey(column, row));
    return tile && (!tile.part || holdsBox(tile.part, commonBox(seen, boxOfTile(column, row, scale))));
  });
}

import type { Box, Change, Drawing } from '@/core';
import type { Looks } from '@/painting/paintLine';

/** Tiles are squares of this many device pixels, laid out from the page's origin. */
export const TILE = 512;

/** Names a tile: column and row at the current scale. */
export const tileKey = (column: number, row: number): string => `${column},${row}`;

/** What a tile covers, in page units. */
export const boxOfTile = (column: number, row: number, scale: number): Box => ({
  minX: (column * TILE) / scale,
  minY: (row * TILE) / scale,
  maxX: ((column + 1) * TILE) / scale,
  maxY: ((row + 1) * TILE) / scale,
});

/** What the bench tells the painter. `order` counts up; the painter answers with the one it has caught up with. */
export type ToPainter =
  | { kind: 'load'; order: number; drawing: Drawing }
  /** The same, packed into bytes: unpacked there, not copied here. */
  | { kind: 'read'; order: number; bytes: ArrayBuffer }
  /** A long one as JSON. */
  | { kind: 'change'; order: number; change: Change | string }
  /** Lines that the bench draws itself, live: left out of the tiles. What lies over them is painted once more by itself. */
  | { kind: 'hide'; order: number; lines: string[] }
  /** Where the hidden lines are seen: what lies over them is painted there. */
  | { kind: 'near'; box: Box }
  /** Lines that are chosen, where they are very many: they are painted by themselves too, and marked, ready to be moved. */
  | { kind: 'choose'; order: number; lines: string[] }
  /** How lines are seen, and the one sheet that is seen alone. */
  | { kind: 'look'; order: number; looks: Looks; solo: string | null }
  /** The tiles wanted at a scale (device pixels a page unit), the most wanted first; what is `seen` of them is painted before all else. */
  | { kind: 'want'; scale: number; tiles: [number, number][]; seen: Box };

/** What is painted beside the tiles: what lies over the lines that are hidden; very many chosen lines, and their marks. */
export const layerKinds = ['chosen', 'marks', 'over'] as const;
export type LayerKind = (typeof layerKinds)[number];

/**
 * A painter whose name is the address of a packed drawing asks for that as the first thing it does, as if it had been told to read
 * it: by this order.
 */
export const FIRST_ORDER = 1;

/** A packed drawing as it comes: what the server says of it beside (a header's text), and its bytes. */
export type PackedDrawing = { readonly about: string; readonly bytes: ArrayBuffer };

/** What the painter answers. */
export type FromPainter =
  /** `part`: what of it is painted by now; null where all of it is. */
  | { kind: 'tile'; scale: number; column: number; row: number; part: Box | null; bitmap: ImageBitmap }
  /** A tile of a layer, as it was after `order`; null where there is nothing in it. */
  | {
      kind: 'layer';
      layer: LayerKind;
      order: number;
      scale: number;
      column: number;
      row: number;
      bitmap: ImageBitmap | null;
    }
  /** What it asked for by itself; null where it has not come. */
  | { kind: 'fetched'; packed: PackedDrawing | null }
  | { kind: 'caughtUp'; order: number }
  | { kind: 'failed'; why: string };

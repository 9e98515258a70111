import type { Change, Drawing } from '@/core';
import type { Looks } from './paintLine';

/** Tiles are squares of this many device pixels, laid out from the page's origin. */
export const TILE = 512;

/** Names a tile: column and row at the current scale. */
export const tileKey = (column: number, row: number): string => `${column},${row}`;

/** What the bench tells the painter. `order` counts up; the painter answers with the one it has caught up with. */
export type ToPainter =
  | { kind: 'load'; order: number; drawing: Drawing }
  | { kind: 'change'; order: number; change: Change }
  /** Lines that the bench draws itself, live: left out of the tiles. */
  | { kind: 'hide'; order: number; lines: string[] }
  /** How lines are seen, and the one sheet that is seen alone. */
  | { kind: 'look'; order: number; looks: Looks; solo: string | null }
  /** The tiles wanted at a scale (device pixels a page unit), the most wanted first. */
  | { kind: 'want'; scale: number; tiles: [number, number][] };

/** What the painter answers. */
export type FromPainter =
  | { kind: 'tile'; scale: number; column: number; row: number; bitmap: ImageBitmap }
  | { kind: 'caughtUp'; order: number }
  | { kind: 'failed'; why: string };

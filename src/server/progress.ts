import type { Drawing } from '@/core';
import { isPart, linesOf } from '@/core/drawing/items';

/** How far a drawing is, for its card. */
export const progressOf = ({ sheets }: Drawing): { sheets: number; sheetsTraced: number; lines: number } => ({
  sheets: sheets.filter(isPart).length,
  sheetsTraced: sheets.filter((s) => s.state === 'traced').length,
  lines: sheets.reduce((n, s) => n + linesOf(s).length, 0),
});

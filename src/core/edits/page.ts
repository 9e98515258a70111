import { shownPixels } from '../drawing/placement';
import type { Drawing, Page, Reference } from '../drawing/schema';
import { edit, sidesOf, type Edit } from '../change/edit';
import { setReference } from './references';

/** The page with other figures. What is on it stays where it is. */
export function setPage(d: Drawing, after: Partial<Page>, label: string): Edit {
  const sides = sidesOf(d.page, after);
  return edit(label, sides ? { step: 'setPage', ...sides } : []);
}

/** Page sizes to choose from, in page units, the longer side first. */
export const pagePresets: readonly { name: string; width: number; height: number; unit: Page['unit'] }[] = [
  { name: 'A3', width: 1587.4016, height: 1122.5197, unit: 'mm' },
  { name: 'A4', width: 1122.5197, height: 793.7008, unit: 'mm' },
  { name: 'A5', width: 793.7008, height: 559.3701, unit: 'mm' },
  { name: 'A6', width: 559.3701, height: 396.8504, unit: 'mm' },
  { name: 'Seed packet, 120 x 90 mm', width: 453.5433, height: 340.1575, unit: 'mm' },
  { name: 'Letter, 11 x 8.5 in', width: 1056, height: 816, unit: 'in' },
  { name: 'Square, 200 x 200 mm', width: 755.9055, height: 755.9055, unit: 'mm' },
  { name: 'Screen, 1920 x 1080 px', width: 1920, height: 1080, unit: 'px' },
];

/** The page as large as a picture is in print by its own dpi (or that of the page), the picture laid to fill it. */
export function pageFromReference(d: Drawing, r: Reference): Edit {
  const pixels = shownPixels(r);
  const dpi = Math.round(r.dpi ?? d.page.dpi);
  const [width, height] = [(pixels.width * 96) / dpi, (pixels.height * 96) / dpi];
  const page = setPage(d, { width, height, dpi }, 'Page from picture');
  const laid = setReference(d, r.id, { at: { x: 0, y: 0 }, width, height, turn: 0 }, '');
  return edit('Page from picture', page.steps, laid.steps);
}

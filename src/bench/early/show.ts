import { wishEarly } from '../canvas/earlyPainter';
import { wishOf } from '../canvas/wantedTiles';
import { drawingAt } from '../state/drawingAt';
import { showSight } from '../state/firstSight';
import { showLines } from './showLines';

/**
 * Stands in the page of a drawing, behind what covers its window: shows what there is to see of it before any of the program has
 * come, and has the painter paint it.
 */
const cover = document.querySelector<HTMLElement>('.opening')!;
const seen = showSight(cover, drawingAt(location.pathname)!);
if (seen) {
  const early = wishEarly(wishOf(seen.view, seen.window, seen.view.scale * devicePixelRatio));
  // What was seen last has its lines.
  const lines = cover.querySelector('.seen:empty ~ .felt .lines');
  if (early && lines) showLines(lines, early.worker, seen, devicePixelRatio);
}

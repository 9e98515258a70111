import { wishEarly } from '../canvas/earlyPainter';
import { wishOf } from '../canvas/wantedTiles';
import { drawingAt } from '../state/drawingAt';
import { showSight } from '../state/firstSight';

/**
 * Stands in the page of a drawing, behind what covers its window: shows what there is to see of it before any of the program has
 * come, and has the painter paint it.
 */
const seen = showSight(document.querySelector<HTMLElement>('.opening')!, drawingAt(location.pathname)!);
if (seen) wishEarly(wishOf(seen.view, seen.window, seen.view.scale * devicePixelRatio));

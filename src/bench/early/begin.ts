import { startEarly } from '../canvas/earlyPainter';
import { packedUrl } from '../state/api';
import { drawingAt } from '../state/drawingAt';
import { keptPreferences } from '../state/keptPreferences';

/**
 * Stands at the head of every page, and is run before all else that comes with it: for a drawing it has a painter begin, and ask for
 * it. By the time that the program has come there would be no room left to start one.
 */

/** Where the painter's script is; put in as this is bundled (`scripts/early.mjs`). */
declare const PAINTER: string;

const id = drawingAt(location.pathname);
if (id !== null) {
  const { draft, seeThrough, bare } = keptPreferences();
  startEarly(PAINTER, id, packedUrl(id), { draft: !!draft, seeThrough: !!seeThrough, bare: !!bare });
}

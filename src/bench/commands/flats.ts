import { nanoid } from 'nanoid';
import {
  boundsOf,
  flatsIntoLines,
  freeAreas,
  paintFlats,
  pourAll,
  removeFlats,
  seenFlats,
  sheetOfFlats,
} from '@/core/edits/flats';
import { isSamePaint, isSwatch, type Paint } from '@/core/drawing/paint';
import { setSwatch } from '@/core/edits/palette';
import { skeletonBox } from '@/core/drawing/run';
import { formatCount } from '@/ui/format';
import { areasOf, innerOf, withoutSheets } from '../state/areas';
import { preferences } from '../state/preferences';
import type { Bench } from '../state/store';
import { goTo } from './checks';
import { paintOf } from './colours';
import { sheetToDraw } from './sheetToDraw';

/** What can be done with flats. */

/** Fills all areas that have no flat yet, in the colour in hand. */
export async function pourAllAreas(bench: Bench): Promise<void> {
  const { colour, gap, isInner } = preferences.getState().pour;
  const { drawing } = bench.getState();
  const sheet = sheetOfFlats(drawing);
  if (sheet && !sheetToDraw(bench, sheet.id, 'nothing is poured on it')) return;
  try {
    const without = withoutSheets(bench.getState());
    const free = freeAreas(drawing, await areasOf(boundsOf(drawing, without), gap));
    const areas = isInner ? await innerOf(drawing, free, without) : free;
    // What has changed meanwhile has other areas.
    if (bench.getState().drawing !== drawing)
      return void bench.tell('The drawing has changed meanwhile. Ask once more.');
    const { edit, count } = pourAll(drawing, areas, {
      fill: paintOf(bench, colour),
      gap,
      without,
      freshId: () => nanoid(12),
    });
    bench.commit(edit, null, 'There is no area without a flat.');
    if (count > 0) bench.tell(`${formatCount(count, 'area')} filled.`);
  } catch {
    bench.tell('The areas could not be found. Nothing was changed.', undefined, 'warning');
  }
}

/** Takes the chosen flats away. */
export function takeFlatsAway(bench: Bench): void {
  const { drawing, flats } = bench.getState();
  bench.commit(removeFlats(drawing, flats));
}

/** Makes the chosen flats ordinary lines with their fills. */
export function makeLines(bench: Bench): void {
  const { drawing, flats } = bench.getState();
  const { edit, lines } = flatsIntoLines(drawing, flats, () => nanoid(12));
  if (!bench.commit(edit, lines)) return;
  bench.tell(
    lines.length === 1
      ? 'The flat is an ordinary closed line now, and follows nothing.'
      : `The ${lines.length} flats are ordinary closed lines now, and follow nothing.`,
  );
}

/** Paints all flats of one colour in another, in one change. */
export function repaintAlike(bench: Bench, from: Paint, to: string): void {
  const { drawing } = bench.getState();
  // A swatch's colour is changed in the palette: whatever else has it changes as well.
  if (isSwatch(from)) return void bench.commit(setSwatch(drawing, from.swatch, { colour: to }));
  const alike = seenFlats(drawing).filter((f) => isSamePaint(f.fill, from));
  bench.commit(
    paintFlats(
      drawing,
      alike.map((f) => f.id),
      paintOf(bench, to),
    ),
  );
}

/** Shows a flat, and chooses it. */
export function visitFlat(bench: Bench, id: string): void {
  const flat = seenFlats(bench.getState().drawing).find((f) => f.id === id);
  if (!flat) return;
  goTo(bench, skeletonBox(flat), 60);
  bench.chooseFlats([id]);
  bench.setState({ tool: 'pour' });
}

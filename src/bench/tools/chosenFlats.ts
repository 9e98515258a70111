import { paintArea } from '../canvas/areaMarks';
import { chosenFlats } from '../commands/colours';
import { takeFlatsAway } from '../commands/flats';
import { MANY, type Bench } from '../state/store';
import type { View } from '../state/view';

/** The rims of the chosen flats, dashed where they are not shut. */
export function paintChosenFlats(ctx: CanvasRenderingContext2D, bench: Bench, view: View): void {
  for (const flat of chosenFlats(bench.getState()).slice(0, MANY))
    paintArea(ctx, view, flat.runs, null, flat.open === true);
}

/** Delete takes the chosen flats away, Escape lets go of them; whether there were any. */
export function keyOnFlats(bench: Bench, key: string): boolean {
  if (bench.getState().flats.size === 0) return false;
  if (key === 'Delete' || key === 'Backspace') takeFlatsAway(bench);
  else if (key === 'Escape') bench.chooseFlats([]);
  else return false;
  return true;
}

import { paintArea } from '../canvas/areaMarks';
import { flatInHand } from '../commands/colours';
import { takeFlatAway } from '../commands/flats';
import type { Bench } from '../state/store';
import type { View } from '../state/view';

/** The rim of the flat in hand, dashed where it is not shut. */
export function paintFlatInHand(ctx: CanvasRenderingContext2D, bench: Bench, view: View): void {
  const flat = flatInHand(bench);
  if (flat) paintArea(ctx, view, flat.runs, null, flat.open === true);
}

/** Delete takes the flat in hand away, Escape lets go of it; whether there was one. */
export function keyOnFlatInHand(bench: Bench, key: string): boolean {
  const flat = flatInHand(bench);
  if (!flat) return false;
  if (key === 'Delete' || key === 'Backspace') takeFlatAway(bench, flat.id);
  else if (key === 'Escape') bench.setState({ flat: null });
  else return false;
  return true;
}

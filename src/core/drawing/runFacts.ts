import { movedBox } from '../geometry/box';
import type { Box, Point } from '../geometry/point';
import type { Run } from './schema';

/** What is known of a line's runs: worked out once for each shape, for very many are asked for again and again. */
type Facts = {
  /** Their places lie on the grid. */
  onGrid?: boolean;
  /** The box of their points and handles. */
  box?: Box;
};

const known = new WeakMap<readonly Run[], Facts>();

export function factsOf(runs: readonly Run[]): Facts {
  let facts = known.get(runs);
  if (!facts) known.set(runs, (facts = {}));
  return facts;
}

/** Says that runs are others of which this is known, that lie on the grid, moved by an offset that does. */
export function keepMoved({ box }: Facts, moved: readonly Run[], by: Point): void {
  known.set(moved, { onGrid: true, box: box && movedBox(box, by) });
}

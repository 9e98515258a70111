import { evaluate, type Cubic } from './cubic';
import { nearestOnCubic } from './nearest';

/** How far apart places are taken along each of the curves: as shares of its parameter. */
const PLACES = 16;

/** How far places of some curves lie from the nearest of others, at most; endless where there are no others. */
export const strayFrom = (curves: readonly Cubic[], others: readonly Cubic[]): number =>
  curves.reduce((most, c) => {
    for (let i = 0; i <= PLACES; i++) {
      const p = evaluate(c, i / PLACES);
      most = Math.max(most, others.reduce((least, o) => Math.min(least, nearestOnCubic(o, p).distance), Infinity));
    }
    return most;
  }, 0);

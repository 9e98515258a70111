import { labDistance, type Lab } from './oklab';

/** How much a large area counts beside a small one: its size to this power. Small strong accents are kept so. */
const POWER = 0.4;
const ROUNDS = 24;
/** Colours that look so much alike are one. */
export const ALIKE = 0.025;

/** Like colours: their mean, how many, and how much they count. */
export type Bin = { readonly lab: Lab; readonly count: number; readonly strength: number };

/**
 * The middles of up to `count` sorts of colours. Begun with the largest, then always with what is worst stood for, they are
 * moved to the means of what is nearest to them (Lloyd 1982, with Arthur and Vassilvitskii's 2007 spread of beginnings,
 * without its chance). `first` is what they are begun among.
 */
export function middlesOf(bins: readonly Bin[], count: number, first: readonly Bin[] = bins): Lab[] {
  let middles = beginnings(first, count);
  for (let round = 0; round < ROUNDS; round++) {
    const own = sharedOut(bins, middles);
    const next = middles.map((m, k) => meanOf(own[k], (b) => b.strength) ?? m);
    const moved = Math.max(...next.map((m, k) => labDistance(m, middles[k])));
    middles = next;
    if (moved < 1e-4) break;
  }
  return middles;
}

/** The commonest colour, then always the one that is worst stood for by those before. */
function beginnings(bins: readonly Bin[], count: number): Lab[] {
  const first = bins.reduce((a, b) => (b.strength > a.strength ? b : a));
  const middles: Lab[] = [first.lab];
  const away = bins.map((b) => labDistance(b.lab, first.lab));
  const worth = ({ strength }: Bin, i: number): number => strength ** POWER * away[i] ** 2;
  while (middles.length < count) {
    let worst = 0;
    bins.forEach((b, i) => {
      if (worth(b, i) > worth(bins[worst], worst)) worst = i;
    });
    if (away[worst] < ALIKE) break;
    middles.push(bins[worst].lab);
    bins.forEach((b, i) => (away[i] = Math.min(away[i], labDistance(b.lab, bins[worst].lab))));
  }
  return middles;
}

/** The bins that lie nearest to each of some middles. */
export function sharedOut(bins: readonly Bin[], middles: readonly Lab[]): Bin[][] {
  const own = middles.map((): Bin[] => []);
  for (const b of bins) {
    let [nearest, least] = [0, Infinity];
    middles.forEach((m, k) => {
      const away = labDistance(b.lab, m);
      if (away < least) [nearest, least] = [k, away];
    });
    own[nearest].push(b);
  }
  return own;
}

export function meanOf(bins: readonly Bin[], weight: (b: Bin) => number): Lab | null {
  const sum = bins.reduce((n, b) => n + weight(b), 0);
  if (sum === 0) return null;
  const axis = (i: 0 | 1 | 2): number => bins.reduce((n, b) => n + weight(b) * b.lab[i], 0) / sum;
  return [axis(0), axis(1), axis(2)];
}

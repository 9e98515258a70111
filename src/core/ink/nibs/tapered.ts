import type { NibDefinition } from './nib';

/** Least of the width that is left at a drawn-out end. */
const POINT = 0.06;

/** Ends drawn out to a point, each over a share of the length; closed lines have no ends. */
export const tapered: NibDefinition<'tapered'> = {
  kind: 'tapered',
  label: 'tapered',
  about: 'Both ends drawn out to a point.',
  plain: { kind: 'tapered', start: 0.25, end: 0.25 },
  taper: ({ start, end }, closed) => {
    if (closed || (start === 0 && end === 0)) return null;
    const rise = (travelled: number, over: number): number => {
      if (over === 0 || travelled >= over) return 1;
      const t = travelled / over;
      return POINT + (1 - POINT) * (1 - (1 - t) * (1 - t));
    };
    const knots = [0, start / 3, (2 * start) / 3, start, 1 - end, 1 - (2 * end) / 3, 1 - end / 3, 1];
    return { knots, factor: (at) => rise(at, start) * rise(1 - at, end) };
  },
};

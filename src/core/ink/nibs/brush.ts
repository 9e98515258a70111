import type { NibDefinition } from './nib';

/** Widths at the touch of the brush and at its lift, as shares of the belly's. */
const TOUCH = 0.45;
const LIFT = 0.02;

/** Set down round, fullest at its belly, and drawn out into a tail. */
export const brush: NibDefinition<'brush'> = {
  kind: 'brush',
  label: 'brush',
  about: 'Set down round, fullest at the belly, drawn out into a tail.',
  plain: { kind: 'brush', belly: 0.3, tail: 0.55 },
  taper: ({ belly, tail }, closed) => {
    if (closed) return null;
    const falls = Math.max(belly, 1 - tail);
    const smooth = (t: number): number => t * t * (3 - 2 * t);
    const factor = (at: number): number => {
      if (at < belly) return TOUCH + (1 - TOUCH) * Math.sin(((at / belly) * Math.PI) / 2);
      if (at <= falls || falls >= 1) return 1;
      return 1 - (1 - LIFT) * smooth((at - falls) / (1 - falls));
    };
    const between = (a: number, b: number): number[] => [0, 0.25, 0.5, 0.75].map((k) => a + (b - a) * k);
    return { knots: [...between(0, belly), ...between(belly, falls).slice(0, 1), ...between(falls, 1), 1], factor };
  },
};

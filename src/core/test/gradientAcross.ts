import type { Gradient } from '../drawing/paint';

/** A gradient from the left to the right of what it fills, its colours evenly apart. */
export const gradientAcross = (
  id: string,
  colours: readonly Gradient['stops'][number]['colour'][],
  part: Partial<Gradient> = {},
): Gradient => ({
  id,
  name: '',
  kind: 'linear',
  space: 'item',
  from: { x: 0, y: 0.5 },
  to: { x: 1, y: 0.5 },
  stops: colours.map((colour, i) => ({ at: i / (colours.length - 1), colour })),
  ...part,
});

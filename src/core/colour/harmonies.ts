import { clampChroma, converter, formatHex, parse } from 'culori';

const toLch = converter('oklch');

/** Colours that go with a base: the turns about the circle of hues that each kind takes, degrees. */
const turns = {
  opposite: [180],
  neighbours: [-60, -30, 30, 60],
  'beside the opposite': [150, 210],
  thirds: [120, 240],
  quarters: [90, 180, 270],
} as const;

export type Harmony = keyof typeof turns;
export const harmonies = Object.keys(turns) as Harmony[];

/** The colours of a harmony about a base, as light and as strong as it, as far as they can be shown (OKLCh: CSS Color 4). */
export function harmony(base: string, kind: Harmony): string[] {
  const { l, c, h = 0 } = toLch(parse(base)!);
  return turns[kind].map((by) =>
    formatHex(clampChroma({ mode: 'oklch', l, c, h: (((h + by) % 360) + 360) % 360 }, 'oklch')),
  );
}

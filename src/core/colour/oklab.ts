import { converter, parse } from 'culori';

/** Lightness, 0…1, and two opponent axes: as far apart as colours look (OKLab: Ottosson 2020). */
export type Lab = readonly [number, number, number];

const toLab = converter('oklab');
const toRgb = converter('rgb');

/** A colour of sRGB, 0…255 each. */
export function labOf(red: number, green: number, blue: number): Lab {
  const { l, a, b } = toLab({ mode: 'rgb', r: red / 255, g: green / 255, b: blue / 255 });
  return [l, a, b];
}

/** The colour of sRGB, 0…255 each, rounded and held within what can be shown. */
export function rgbOf([l, a, b]: Lab): [number, number, number] {
  const { r, g, b: blue } = toRgb({ mode: 'oklab', l, a, b });
  const byte = (v: number): number => Math.round(255 * Math.min(1, Math.max(0, v)));
  return [byte(r), byte(g), byte(blue)];
}

/** How far apart two colours look. */
export const labDistance = (p: Lab, q: Lab): number => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);

/** A colour written #rrggbb. */
export function labOfHex(colour: string): Lab {
  const { l, a, b } = toLab(parse(colour)!);
  return [l, a, b];
}

import { clampChroma, converter, formatHex, formatHex8, interpolate, parse, type Color } from 'culori';

/** Colours as CSS has them (CSS Color 4), #rrggbb or #rrggbbaa once they are ours. */

const toLch = converter('lch');
const toRgb = converter('rgb');

/** A colour is no longer than this, characters; what is, is none. */
const MOST_TEXT = 100;

/** A colour in any of CSS's ways of writing it as #rrggbb, with aa where it is let through; null when it is none. */
export function cssColour(text: string): string | null {
  if (text.length > MOST_TEXT) return null;
  try {
    const read = parse(text.trim().toLowerCase());
    return read ? written(read) : null;
  } catch {
    // Some that are cut short are thrown at instead of told.
    return null;
  }
}

function written(colour: Color): string {
  const rgb = toRgb(colour);
  return rgb.alpha === undefined || rgb.alpha >= 1 ? formatHex(rgb) : formatHex8(rgb);
}

/** The colour without how far it is let through. */
export const opaque = (colour: string): string => colour.slice(0, 7);

/** A colour by its red, green and blue, 0…255 each. */
export const rgbColour = (red: number, green: number, blue: number): string =>
  formatHex({ mode: 'rgb', r: red / 255, g: green / 255, b: blue / 255 });

/** How far a colour covers what is below: 1 wholly, 0 not at all. */
export const alphaOf = (colour: string): number => (colour.length > 7 ? parseInt(colour.slice(7, 9), 16) / 255 : 1);

/** A colour that is let through so much. */
export const withAlpha = (colour: string, alpha: number): string => {
  const hex = Math.round(Math.min(1, Math.max(0, alpha)) * 255);
  return hex === 255 ? opaque(colour) : `${opaque(colour)}${hex.toString(16).padStart(2, '0')}`;
};

/**
 * A shade of a colour in the same hue (CIE LCh): `by` 0…1 darker by that share of its lightness, -1…0 lighter by that share of
 * what is missing to white; the further from the colour, the less of its chroma is left.
 */
export function shaded(colour: string, by: number): string {
  const { l, c, h, alpha } = toLch(parse(colour)!);
  const next = by >= 0 ? l * (1 - by) : l + (100 - l) * -by;
  return written(clampChroma({ mode: 'lch', l: next, c: c * (1 - by * by), h, alpha }, 'lch'));
}

/** The colour half-way between two, as the eye has it (OKLab: Ottosson 2020). */
export const mixed = (a: string, b: string): string => formatHex(interpolate([a, b], 'oklab')(0.5));

/** The largest difference of two colours in one channel, 0…255; how far they are let through does not count. */
export function colourDistance(a: string, b: string): number {
  const channel = (c: string, i: number): number => parseInt(c.slice(1 + 2 * i, 3 + 2 * i), 16);
  return Math.max(...[0, 1, 2].map((i) => Math.abs(channel(a, i) - channel(b, i))));
}

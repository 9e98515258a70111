import { z } from 'zod';
import { cssColour, opaque } from '../colour/colour';
import type { NewSwatch } from '../edits/palette';
import type { Swatch } from '../drawing/paint';

/** Palettes as open text: CSS custom properties (CSS Variables 1), JSON, and a plain list of hex figures. */

export const paletteFormats = ['css', 'json', 'hex'] as const;
export type PaletteFormat = (typeof paletteFormats)[number];

/** A palette is no longer than this, characters. */
export const MOST_TEXT = 500_000;
const MOST_SWATCHES = 2_000;

export function writePalette(swatches: readonly Swatch[], format: PaletteFormat): string {
  if (format === 'hex') return swatches.map((s) => `${s.colour}\n`).join('');
  if (format === 'json')
    return `${JSON.stringify(
      swatches.map(({ name, colour, group }) => ({ name, colour, ...(group && { group }) })),
      null,
      2,
    )}\n`;
  const taken = new Set<string>();
  const lines = swatches.map(({ name, colour }) => {
    const plain = identifier(name);
    let own = plain;
    for (let n = 2; taken.has(own); n++) own = `${plain}-${n}`;
    taken.add(own);
    return `  --${own}: ${colour};\n`;
  });
  return `:root {\n${lines.join('')}}\n`;
}

/** A name as CSS takes it for a custom property. */
const identifier = (name: string): string =>
  name
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .join('-') || 'colour';

const jsonSchema = z.array(
  z.union([z.string(), z.object({ name: z.string().optional(), colour: z.string(), group: z.string().optional() })]),
);

/**
 * The swatches that a text holds, in whichever of the three ways it is written.
 * @throws RangeError that says in plain words what is wrong with it.
 */
export function readPalette(text: string): NewSwatch[] {
  if (text.length > MOST_TEXT) throw new RangeError(`a palette has at most ${MOST_TEXT} characters`);
  const swatches = /^\s*[[{]/.test(text) ? fromJson(text) : text.includes('--') ? fromCss(text) : fromHex(text);
  if (swatches.length === 0) throw new RangeError('there is no colour in it');
  if (swatches.length > MOST_SWATCHES) throw new RangeError(`a palette has at most ${MOST_SWATCHES} colours`);
  return swatches;
}

function fromJson(text: string): NewSwatch[] {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new RangeError('it is not whole JSON');
  }
  const read = jsonSchema.safeParse(raw);
  if (!read.success) throw new RangeError('it is no list of colours with their names');
  return read.data.map((s, i) => {
    const { name, colour, group } = typeof s === 'string' ? { name: undefined, colour: s, group: undefined } : s;
    const css = cssColour(colour);
    if (!css) throw new RangeError(`the colour at place ${i + 1} cannot be read`);
    return { colour: opaque(css), ...(name && { name }), ...(group && { group }) };
  });
}

function fromCss(text: string): NewSwatch[] {
  return text.split(/[;{}\n]/).flatMap((part): NewSwatch[] => {
    const at = part.indexOf('--');
    const colon = part.indexOf(':', at);
    if (at < 0 || colon < 0) return [];
    const css = cssColour(part.slice(colon + 1));
    const name = part
      .slice(at + 2, colon)
      .trim()
      .replaceAll('-', ' ');
    return css && name ? [{ colour: opaque(css), name }] : [];
  });
}

const fromHex = (text: string): NewSwatch[] =>
  text.split(/[\s,;]+/).flatMap((word): NewSwatch[] => {
    const hex = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i.exec(word)?.[1];
    const css = hex ? cssColour(`#${hex}`) : null;
    return css ? [{ colour: css }] : [];
  });

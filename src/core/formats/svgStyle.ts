import { alphaOf, cssColour, withAlpha } from '../colour/colour';
import { fromUnit } from '../drawing/unit';
import { blends, units, type Blend, type Style, type Unit } from '../drawing/schema';
import { declarationsOf, type Rules } from './css';

/** What an element's look is made of, as it is handed down from element to element. */
export type Look = {
  colour: string;
  stroke: string;
  fill: string;
  width: number;
  cap: Style['cap'];
  join: Style['join'];
  miterLimit: number;
  dash: number[];
  dashOffset: number;
  strokeBelow: boolean;
  evenOdd: boolean;
  hidden: boolean;
  strokeAlpha: number;
  fillAlpha: number;
  /** Of the element itself: these two are not handed down. */
  opacity: number;
  blend: Blend;
};

/** The initial values of SVG. */
export const firstLook: Look = {
  colour: '#000000',
  stroke: 'none',
  fill: '#000000',
  width: 1,
  cap: 'butt',
  join: 'miter',
  miterLimit: 4,
  dash: [],
  dashOffset: 0,
  strokeBelow: false,
  evenOdd: false,
  hidden: false,
  strokeAlpha: 1,
  fillAlpha: 1,
  opacity: 1,
  blend: 'normal',
};

/** What cannot be kept, named once each. */
export type Drop = (what: string, why: string) => void;

/** The look of an element: what it is handed down, its attributes, the rules for it, and its own style, in that order. */
export function lookOf(name: string, attributes: Record<string, string>, above: Look, rules: Rules, drop: Drop): Look {
  const classes = (attributes.class ?? '').split(/\s+/).map((c) => rules.get(`.${c}`) ?? {});
  const own: Record<string, string> = {
    ...attributes,
    ...rules.get(name),
    ...Object.assign({}, ...classes),
    ...(attributes.id ? rules.get(`#${attributes.id}`) : {}),
    ...declarationsOf(attributes.style ?? ''),
  };
  const take = <T>(key: string, read: (text: string) => T | null, other: T): T => {
    const text = own[key];
    if (text === undefined || text === 'inherit') return other;
    return read(text) ?? other;
  };
  const colour = take('color', (t) => colourOf(t, above.colour), above.colour);
  const paint = (key: 'stroke' | 'fill'): string =>
    take(
      key,
      (t) => {
        if (!t.startsWith('url(')) return colourOf(t, colour);
        drop('gradients and patterns', 'A line or fill has one colour here; black stands in.');
        return '#000000';
      },
      above[key],
    );
  for (const key of ['filter', 'clip-path', 'mask'] as const) {
    if (own[key] && own[key] !== 'none') drop(key, 'What it cuts or changes is shown as it is.');
  }
  const oneOf = <T extends string>(key: string, options: readonly T[], other: T): T =>
    take(key, (t) => options.find((o) => o === t) ?? null, other);
  return {
    colour,
    stroke: paint('stroke'),
    fill: paint('fill'),
    width: take('stroke-width', (t) => lengthOf(t), above.width),
    cap: oneOf('stroke-linecap', ['butt', 'round', 'square'], above.cap),
    join: oneOf('stroke-linejoin', ['miter', 'round', 'bevel'], above.join),
    miterLimit: take('stroke-miterlimit', (t) => (Number(t) >= 1 ? Math.min(100, Number(t)) : null), above.miterLimit),
    dash: take('stroke-dasharray', (t) => dashOf(t, drop), above.dash),
    dashOffset: take('stroke-dashoffset', (t) => lengthOf(t), above.dashOffset),
    strokeBelow: take('paint-order', (t) => t.trim().startsWith('stroke'), above.strokeBelow),
    evenOdd: take('fill-rule', (t) => t === 'evenodd', above.evenOdd),
    strokeAlpha: take('stroke-opacity', shareOf, above.strokeAlpha),
    fillAlpha: take('fill-opacity', shareOf, above.fillAlpha),
    opacity: take('opacity', shareOf, 1),
    blend: take('mix-blend-mode', (t) => blendOf(t, drop), 'normal'),
    hidden:
      above.hidden || own.display === 'none' || take('visibility', (t) => t === 'hidden' || t === 'collapse', false),
  };
}

/** The lengths of a dash list; none for one that cannot be read or has nothing but noughts. */
function dashOf(text: string, drop: Drop): number[] {
  if (text.trim() === 'none') return [];
  const lengths = text
    .trim()
    .split(/[\s,]+/)
    .map(lengthOf);
  const sound = lengths.every((l): l is number => l !== null && l >= 0) && lengths.length <= 12;
  if (!sound) drop('dashes', 'Their lengths are not such as can be kept; the stroke is solid.');
  return sound && lengths.some((l) => l > 0) ? lengths : [];
}

/** A line's style as an element looks; its lengths grow by `growth`, which is 0 for one without a stroke. */
export function styleOf(look: Look, growth: number): Style {
  const length = (v: number): number => Math.min(10_000, Math.max(0, v * growth));
  const [stroke, fill] = [paintOf(look.stroke, look.strokeAlpha), paintOf(look.fill, look.fillAlpha)];
  return {
    stroke: (growth > 0 ? stroke : fill) ?? firstLook.colour,
    width: length(look.width),
    cap: look.cap,
    join: look.join,
    fill,
    ...(look.miterLimit !== 4 && { miterLimit: look.miterLimit }),
    ...(look.dash.length > 0 && { dash: { lengths: look.dash.map(length), offset: look.dashOffset * growth } }),
    ...(look.strokeBelow && { strokeBelow: true }),
    ...(look.evenOdd && fill !== null && { fillRule: 'evenodd' }),
  };
}

const paintOf = (colour: string, alpha: number): string | null =>
  colour === 'none' ? null : withAlpha(colour, alphaOf(colour) * alpha);

/** A share as a figure or in per cent; null when it is neither. */
function shareOf(text: string): number | null {
  const plain = text.trim();
  const value = plain.endsWith('%') ? Number(plain.slice(0, -1)) / 100 : Number(plain);
  return plain !== '' && Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : null;
}

function blendOf(text: string, drop: Drop): Blend | null {
  const found = blends.find((b) => b === text.trim());
  if (!found) drop('blend modes', 'Of these only multiply and screen are kept.');
  return found ?? null;
}

/** A figure or a colour is no longer than this, characters; what is, is none. */
const MOST_FIGURE = 100;

/** A colour as #rrggbb or #rrggbbaa, or `none`; null when it cannot be read. */
function colourOf(text: string, current: string): string | null {
  const plain = text.trim().toLowerCase();
  if (plain.length > MOST_FIGURE) return null;
  if (plain === 'none' || plain === 'transparent') return 'none';
  if (plain === 'currentcolor') return current;
  return cssColour(plain);
}

/** A length in user units; null for one that depends on a font or on what is around. */
export function lengthOf(text: string | undefined): number | null {
  const plain = (text ?? '').trim();
  if (plain.length > MOST_FIGURE) return null;
  const found = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z%]*)$/i.exec(plain);
  if (!found) return null;
  const value = Number(found[1]);
  const unit = found[2].toLowerCase();
  if (!Number.isFinite(value)) return null;
  if (unit === '') return value;
  return units.includes(unit as Unit) ? fromUnit(value, unit as Unit) : null;
}

import { blends, type Blend } from '../../drawing/paint';
import type { Style } from '../../drawing/schema';
import { cssColour } from '../../colour/colour';
import { lengthOf, shareOf, type Measures } from './lengths';
import type { Drop } from './styleSheet';
import { withVariables, type Variables } from './variables';

/** What something is painted with: nothing, a colour, or what an element of an id says; then what is taken if there is none. */
export type SvgPaint =
  | { readonly kind: 'none' }
  | { readonly kind: 'colour'; readonly colour: string; readonly variable?: string }
  | { readonly kind: 'server'; readonly id: string; readonly other: SvgPaint };

/** What an element's look is made of. What is of the element itself is not handed down. */
export type Look = {
  readonly colour: string;
  readonly stroke: SvgPaint;
  readonly fill: SvgPaint;
  readonly width: number;
  readonly cap: Style['cap'];
  readonly join: Style['join'];
  readonly miterLimit: number;
  readonly dash: readonly number[];
  readonly dashOffset: number;
  readonly strokeBelow: boolean;
  readonly evenOdd: boolean;
  readonly clipEvenOdd: boolean;
  readonly isVisible: boolean;
  readonly strokeAlpha: number;
  readonly fillAlpha: number;
  readonly fontSize: number;
  readonly variables: Variables;
  readonly own: {
    readonly opacity: number;
    readonly blend: Blend;
    readonly isShown: boolean;
    readonly clip: string | null;
    readonly mask: string | null;
    readonly overflow: boolean;
    readonly isConstantWidth: boolean;
  };
};

const ownFirst: Look['own'] = {
  opacity: 1,
  blend: 'normal',
  isShown: true,
  clip: null,
  mask: null,
  overflow: false,
  isConstantWidth: false,
};

const none: SvgPaint = { kind: 'none' };

/** The initial values of SVG. */
export const firstLook: Look = {
  colour: '#000000',
  stroke: none,
  fill: { kind: 'colour', colour: '#000000' },
  width: 1,
  cap: 'butt',
  join: 'miter',
  miterLimit: 4,
  dash: [],
  dashOffset: 0,
  strokeBelow: false,
  evenOdd: false,
  clipEvenOdd: false,
  isVisible: true,
  strokeAlpha: 1,
  fillAlpha: 1,
  fontSize: 16,
  variables: null,
  own: ownFirst,
};

/** The look of an element, from what is declared of it and what it is handed down (SVG 2, chapters 6, 11 and 13). */
export function lookOf(given: Readonly<Record<string, string>>, above: Look, around: Measures, drop: Drop): Look {
  if (!saysAnything(given)) return above.own === ownFirst ? above : { ...above, own: ownFirst };
  const { own, variables } = withVariables(given, above.variables);
  const take = <T>(key: string, read: (text: string) => T | null, other: T): T => {
    const text = own[key];
    if (text === undefined || text === 'inherit' || text === 'unset') return other;
    return read(text.trim()) ?? other;
  };
  const oneOf = <T extends string>(key: string, options: readonly T[], other: T): T =>
    take(key, (t) => options.find((o) => o === t) ?? null, other);
  const fontSize = take('font-size', (t) => lengthOf(t, { ...around, fontSize: above.fontSize }), above.fontSize);
  const m: Measures = { ...around, fontSize };
  const colour = take('color', (t) => plainColour(t, above.colour), above.colour);
  const paint = (key: 'stroke' | 'fill'): SvgPaint =>
    take(key, (t) => paintOf(t, colour, given[key]?.trim(), drop), above[key]);
  if (own.filter && own.filter !== 'none') drop('filter', 'What it changes is shown as it is without it.');
  for (const key of ['marker', 'marker-start', 'marker-mid', 'marker-end'] as const)
    if (own[key] && own[key] !== 'none')
      drop('marker', 'Arrowheads and the like at nodes have to be turned into paths.');
  return {
    colour,
    stroke: paint('stroke'),
    fill: paint('fill'),
    width: take('stroke-width', (t) => notBelow0(lengthOf(t, m)), above.width),
    cap: oneOf('stroke-linecap', ['butt', 'round', 'square'], above.cap),
    join: take('stroke-linejoin', joinOf, above.join),
    miterLimit: take('stroke-miterlimit', (t) => (Number(t) >= 1 ? Math.min(100, Number(t)) : null), above.miterLimit),
    dash: take('stroke-dasharray', (t) => dashOf(t, m, drop), above.dash),
    dashOffset: take('stroke-dashoffset', (t) => lengthOf(t, m), above.dashOffset),
    strokeBelow: take('paint-order', isStrokeFirst, above.strokeBelow),
    evenOdd: take('fill-rule', (t) => t === 'evenodd', above.evenOdd),
    clipEvenOdd: take('clip-rule', (t) => t === 'evenodd', above.clipEvenOdd),
    isVisible: take('visibility', (t) => t !== 'hidden' && t !== 'collapse', above.isVisible),
    strokeAlpha: take('stroke-opacity', shareOf, above.strokeAlpha),
    fillAlpha: take('fill-opacity', shareOf, above.fillAlpha),
    fontSize,
    variables,
    own: {
      opacity: take('opacity', shareOf, 1),
      blend: take('mix-blend-mode', (t) => blendOf(t, drop), 'normal'),
      isShown: own.display !== 'none',
      clip: take('clip-path', (t) => referenceOf(t, 'clip-path', drop), null),
      mask: take('mask', (t) => referenceOf(t, 'mask', drop), null),
      overflow: take('overflow', (t) => t === 'visible' || t === 'auto', false),
      isConstantWidth: own['vector-effect'] === 'non-scaling-stroke',
    },
  };
}

/** Whether anything is declared of an element that a look is made of: most say just where they are. */
function saysAnything(given: Readonly<Record<string, string>>): boolean {
  for (const key in given) if (!NOT_OF_LOOK.has(key)) return true;
  return false;
}
const NOT_OF_LOOK: ReadonlySet<string> = new Set(
  'd id class points x y x1 y1 x2 y2 cx cy r rx ry width height viewBox preserveAspectRatio href transform version'.split(
    ' ',
  ),
);

const notBelow0 = (v: number | null): number | null => (v !== null && v >= 0 ? v : null);
const joinOf = (t: string): Style['join'] | null =>
  t === 'round' || t === 'bevel' ? t : t === 'miter' || t === 'miter-clip' || t === 'arcs' ? 'miter' : null;

/** Whether the stroke is painted before the fill: what is not said comes after, in the usual order. */
function isStrokeFirst(text: string): boolean {
  const said = text.split(/\s+/).slice(0, 3);
  const [stroke, fill] = [said.indexOf('stroke'), said.indexOf('fill')];
  return stroke >= 0 && (fill < 0 || stroke < fill);
}

/** The lengths of a dash list; none for one that cannot be read or has nothing but noughts. */
function dashOf(text: string, m: Measures, drop: Drop): number[] {
  if (text === 'none' || text === '') return [];
  const parts = text.length > 1_000 ? [] : text.split(/[\s,]+/).filter(Boolean);
  const lengths = parts.map((t) => lengthOf(t, m));
  const sound = lengths.length > 0 && lengths.every((l): l is number => l !== null && l >= 0);
  if (!sound || lengths.length > 12) {
    drop('dashes', 'Their lengths are not such as can be kept; the stroke is solid.');
    return [];
  }
  return lengths.some((l) => l > 0) ? lengths : [];
}

function blendOf(text: string, drop: Drop): Blend | null {
  const found = blends.find((b) => b === text);
  if (!found) drop('blend modes', 'One that is not of CSS is laid over plainly.');
  return found ?? null;
}

const URL = /^url\(\s{0,20}(["']?)#([^"')]{1,500})\1\s{0,20}\)/;

/** The id that is named; null for none, and for what lies outside. */
function referenceOf(text: string, what: string, drop: Drop): string | null {
  if (text === 'none') return null;
  const found = URL.exec(text.slice(0, 600));
  if (!found) drop(what, 'It is not one of the file itself; what it cuts is shown whole.');
  return found?.[2].trim() ?? null;
}

/** `raw`: what stands there, in which a variable may be named. */
function paintOf(text: string, current: string, raw: string | undefined, drop: Drop): SvgPaint | null {
  if (text === 'none') return none;
  const server = URL.exec(text.slice(0, 600));
  if (server) {
    const rest = text.slice(server[0].length).trim();
    return { kind: 'server', id: server[2].trim(), other: (rest && paintOf(rest, current, undefined, drop)) || none };
  }
  if (text.startsWith('url(')) {
    drop('gradients and patterns', 'Nothing outside of the file is looked up.');
    return none;
  }
  // What speaks of where it is used has nothing to speak of.
  if (text === 'context-fill' || text === 'context-stroke') return none;
  const colour = plainColour(text, current);
  const variable = raw && /^var\(\s{0,9}--([\w-]{1,100})\s{0,9}\)$/.exec(raw.slice(0, 130))?.[1];
  return colour === null ? null : { kind: 'colour', colour, ...(variable && { variable }) };
}

const plainColour = (text: string, current: string): string | null =>
  text.toLowerCase() === 'currentcolor' ? current : text.length > 100 ? null : colourOf(text);

const colours = new Map<string, string | null>();
const MOST_KEPT = 2_000;
/** A colour in any of CSS's ways; the same ones come again and again. */
export function colourOf(text: string): string | null {
  let known = colours.get(text);
  if (known === undefined) {
    if (colours.size >= MOST_KEPT) colours.clear();
    known = text.toLowerCase() === 'transparent' ? '#00000000' : cssColour(text);
    colours.set(text, known);
  }
  return known;
}

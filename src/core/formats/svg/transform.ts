import { identity, moving, scalingAbout, skewingAbout, times, turningAbout, type Matrix } from '../../geometry/matrix';

import { lengthOf } from './lengths';

/** A figure, perhaps with a unit, as CSS has them. */
const FIGURE = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?(?:[a-z]{1,4}\b)?/gi;
const origin = { x: 0, y: 0 };

/** The functions of a transform list, by how many figures each may have. */
const functions: Record<string, { counts: readonly number[]; map: (v: readonly number[]) => Matrix }> = {
  matrix: { counts: [6], map: ([a, b, c, d, e, f]) => ({ a, b, c, d, e, f }) },
  translate: { counts: [1, 2], map: ([x, y = 0]) => moving({ x, y }) },
  translateX: { counts: [1], map: ([x]) => moving({ x, y: 0 }) },
  translateY: { counts: [1], map: ([y]) => moving({ x: 0, y }) },
  scale: { counts: [1, 2], map: ([x, y = x]) => scalingAbout(origin, x, y) },
  scaleX: { counts: [1], map: ([x]) => scalingAbout(origin, x, 1) },
  scaleY: { counts: [1], map: ([y]) => scalingAbout(origin, 1, y) },
  rotate: { counts: [1, 3], map: ([degrees, x = 0, y = 0]) => turningAbout({ x, y }, degrees) },
  skewX: { counts: [1], map: ([x]) => skewingAbout(origin, x, 0) },
  skewY: { counts: [1], map: ([y]) => skewingAbout(origin, 0, y) },
};

/** A figure in degrees or user units; NaN for a unit that is neither. */
function plainFigure(text: string): number {
  const unit = /[a-z]+$/i.exec(text)?.[0].toLowerCase() ?? '';
  const value = parseFloat(text);
  if (unit === '' || unit === 'deg') return value;
  if (unit === 'rad') return (value * 180) / Math.PI;
  if (unit === 'grad') return value * 0.9;
  if (unit === 'turn') return value * 360;
  return lengthOf(text) ?? NaN;
}

/**
 * The map of a `transform` (SVG 1.1, 7.6; CSS Transforms 1): a list of functions, the last done first. Null for a text that is
 * no such list. Takes time in proportion to the text's length, whatever is in it.
 */
export function transformOf(text: string): Matrix | null {
  if (text.trim() === 'none') return identity;
  let map = identity;
  for (let at = 0; ;) {
    const open = text.indexOf('(', at);
    if (open < 0) return /[^\s,]/.test(text.slice(at)) ? null : map;
    const close = text.indexOf(')', open);
    if (close < 0) return null;
    const name = text
      .slice(at, open)
      .replace(/^[\s,]+/, '')
      .trimEnd();
    const figures = text.slice(open + 1, close);
    const values = (figures.match(FIGURE) ?? []).map(plainFigure);
    const known = Object.hasOwn(functions, name) ? functions[name] : undefined;
    if (!known?.counts.includes(values.length) || /[^\s,]/.test(figures.replace(FIGURE, ' '))) return null;
    if (!values.every(Number.isFinite)) return null;
    map = times(map, known.map(values));
    at = close + 1;
  }
}

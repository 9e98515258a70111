import { identity, moving, scalingAbout, skewingAbout, times, turningAbout, type Matrix } from '../geometry/matrix';

const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi;
const origin = { x: 0, y: 0 };

/** The functions of a transform list, by how many figures each may have. */
const functions: Record<string, { counts: readonly number[]; map: (v: readonly number[]) => Matrix }> = {
  matrix: { counts: [6], map: ([a, b, c, d, e, f]) => ({ a, b, c, d, e, f }) },
  translate: { counts: [1, 2], map: ([x, y = 0]) => moving({ x, y }) },
  scale: { counts: [1, 2], map: ([x, y = x]) => scalingAbout(origin, x, y) },
  rotate: { counts: [1, 3], map: ([degrees, x = 0, y = 0]) => turningAbout({ x, y }, degrees) },
  skewX: { counts: [1], map: ([x]) => skewingAbout(origin, x, 0) },
  skewY: { counts: [1], map: ([y]) => skewingAbout(origin, 0, y) },
};

/**
 * The map of a `transform` attribute (SVG 1.1, 7.6): a list of functions, the last done first. Null for a text that is no
 * such list. Takes time in proportion to the text's length, whatever is in it.
 */
export function transformOf(text: string): Matrix | null {
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
    const values = (figures.match(NUMBER) ?? []).map(Number);
    const known = Object.hasOwn(functions, name) ? functions[name] : undefined;
    if (!known?.counts.includes(values.length) || /[^\s,]/.test(figures.replace(NUMBER, ' '))) return null;
    map = times(map, known.map(values));
    at = close + 1;
  }
}

import { identity, moving, times, type Matrix } from '../../geometry/matrix';
import type { Point } from '../../geometry/point';
import { lengthOf, type Measures } from './lengths';
import type { Making } from './making';
import { transformOf } from './transform';
import type { SvgElement } from './tree';

/** The map of an element's own transform, about its origin where it names one (CSS Transforms 1, 8). */
export function placeOf(making: Making, e: SvgElement): Matrix {
  const said = making.declaredOf(e);
  const text = said[e.name === 'pattern' ? 'patternTransform' : 'transform'];
  if (!text) return identity;
  const map = transformOf(text);
  if (!map) {
    making.drop('transforms that cannot be read', 'What they were for is left where it is without them.');
    return identity;
  }
  const [x = 0, y = 0] = (said['transform-origin'] ?? '')
    .slice(0, 100)
    .trim()
    .split(/\s+/)
    .map((t) => lengthOf(t) ?? 0);
  return x === 0 && y === 0 ? map : times(moving({ x, y }), times(map, moving({ x: -x, y: -y })));
}

/** An element's `x` and `y`. */
export function placeAt(making: Making, e: SvgElement, measures: Measures): Point {
  const said = making.declaredOf(e);
  return { x: lengthOf(said.x, measures, 'x') ?? 0, y: lengthOf(said.y, measures, 'y') ?? 0 };
}

/** What an element speaks of by its `href`; undefined where that is not in the file. */
export const spokenOf = (making: Making, e: SvgElement): SvgElement | undefined => {
  const href = (e.attributes.href ?? '').trim();
  return href.startsWith('#') ? making.tree.byId.get(href.slice(1)) : undefined;
};

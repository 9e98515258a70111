import { skeletonBox } from '../../drawing/run';
import type { Item, Run } from '../../drawing/schema';
import { growthOf, identity, inverseOf, mapPoint, moving, times } from '../../geometry/matrix';
import type { Drawer } from './drawer';
import { figureOf, lengthOf, type Along } from './lengths';
import type { Shape } from './lines';
import { MOST_WITHIN, type Making } from './making';
import { boxMap, chainOf, saidBy } from './paintServers';
import { withinRectangle, type Rectangle } from './rectangle';
import { runsOf } from './shapes';
import { transformOf } from './transform';
import type { SvgElement } from './tree';
import { fitted, fittingOf, viewBoxOf } from './viewport';

/** A pattern is repeated no more often than this within one shape. */
const MOST_TILES = 2_000;
/** How far a tile is cut beyond its edge, page units. */
const OVER = 0.15;

/** A pattern drawn as often as a shape needs (SVG 2, 14.3): what lies in it, tile by tile. */
export function patternItems(
  making: Making,
  drawer: Drawer,
  pattern: SvgElement,
  shape: Shape,
  runs: readonly Run[],
): Item[] {
  const { context, data } = shape;
  const chain = chainOf(making.tree, pattern);
  const owner = chain.find((e) => e.children.some((c) => c.name !== 'title' && c.name !== 'desc'));
  if (context.within.some((e) => e.name === 'pattern')) {
    making.drop('patterns', 'One within another is left out.');
    return [];
  }
  if (!owner || context.within.includes(owner) || context.within.length >= MOST_WITHIN) return [];
  const box = skeletonBox({ runs: runsOf(data, identity).runs });
  const isBoxed = saidBy(chain, 'patternUnits') !== 'userSpaceOnUse';
  const frame = boxMap(box);
  if (isBoxed && !frame) return [];
  const length = (key: string, along: Along): number => {
    const figure = figureOf(saidBy(chain, key));
    if (!figure) return 0;
    if (!isBoxed) return lengthOf(saidBy(chain, key), context.measures, along) ?? 0;
    return (figure.unit === '%' ? figure.value / 100 : figure.value) * (along === 'x' ? frame!.a : frame!.d);
  };
  const origin = isBoxed ? { x: box.minX, y: box.minY } : { x: 0, y: 0 };
  const tile: Rectangle = {
    x: origin.x + length('x', 'x'),
    y: origin.y + length('y', 'y'),
    width: length('width', 'x'),
    height: length('height', 'y'),
  };
  if (!(tile.width > 0 && tile.height > 0)) return [];
  const own = transformOf(saidBy(chain, 'patternTransform') ?? '') ?? identity;
  const space = times(context.map, own);
  const { minX, minY, maxX, maxY } = skeletonBox({ runs });
  const corners = [minX, maxX].flatMap((x) => [minY, maxY].map((y) => mapPoint(inverseOf(space), { x, y })));
  const span = (of: (p: { x: number; y: number }) => number, from: number, size: number): [number, number] => {
    const all = corners.map((p) => (of(p) - from) / size);
    return [Math.floor(Math.min(...all) + 1e-9), Math.ceil(Math.max(...all) - 1e-9) - 1];
  };
  const [i0, i1] = span((p) => p.x, tile.x, tile.width);
  const [j0, j1] = span((p) => p.y, tile.y, tile.height);
  if (!((i1 - i0 + 1) * (j1 - j0 + 1) <= MOST_TILES)) {
    making.drop('patterns', 'One so fine that it would be drawn more than two thousand times is left out.');
    return [];
  }
  const viewBox = viewBoxOf(saidBy(chain, 'viewBox'));
  const isContentBoxed = !viewBox && saidBy(chain, 'patternContentUnits') === 'objectBoundingBox';
  if (isContentBoxed && !frame) return [];
  const fit = fitted(viewBox, tile, fittingOf(saidBy(chain, 'preserveAspectRatio')));
  const scaled = isContentBoxed ? { ...identity, a: frame!.a, d: frame!.d } : identity;
  // What lies in it begins where its tile does.
  const content = times(moving({ x: tile.x, y: tile.y }), viewBox ? fit : scaled);
  const look = making.lookInPlace(owner, context.measures);
  const items: Item[] = [];
  for (let j = j0; j <= j1; j++)
    for (let i = i0; i <= i1; i++) {
      const by = times(space, moving({ x: i * tile.width, y: j * tile.height }));
      const map = times(by, content);
      const drawn = drawer.children(owner, { ...context, map, look, within: [...context.within, owner] });
      if (drawn.length === 0) continue;
      const rim = grown(tile, OVER / (growthOf(by) || 1));
      items.push(...(look.own.overflow ? drawn : withinRectangle(making, drawn, rim, by)));
    }
  return items;
}

/** A little beyond, so that between tiles that go on in each other nothing is seen through. */
function grown({ x, y, width, height }: Rectangle, by: number): Rectangle {
  return { x: x - by, y: y - by, width: width + 2 * by, height: height + 2 * by };
}

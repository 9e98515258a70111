import { alphaOf, withAlpha } from '../../colour/colour';
import type { Gradient } from '../../drawing/paint';
import { inverseOf, mapPoint, times, type Matrix } from '../../geometry/matrix';
import { distance, subtract, type Box, type Point } from '../../geometry/point';
import { figureOf, lengthOf, shareOf, type Along, type Measures } from './lengths';
import { colourOf } from './look';
import type { SvgElement, SvgTree } from './tree';
import { transformOf } from './transform';

/** Servers take from each other what they do not say, no further than this. */
const MOST_CHAINED = 20;
/** As many stops as a gradient of ours holds. */
const MOST_STOPS = 100;

/** An element and those that it takes from by `href`, the nearest first. */
export function chainOf(tree: SvgTree, first: SvgElement): SvgElement[] {
  const chain = [first];
  while (chain.length < MOST_CHAINED) {
    const next = tree.byId.get((chain.at(-1)!.attributes.href ?? '').trim().replace(/^#/, ''));
    if (!next || chain.includes(next)) break;
    chain.push(next);
  }
  return chain;
}

/** What a chain says of an attribute: the nearest that says something. */
export const saidBy = (chain: readonly SvgElement[], key: string): string | undefined =>
  chain.find((e) => e.attributes[key] !== undefined)?.attributes[key];

/** The map from a box's shares to its places; null for a box without an area, by which nothing can be told. */
export function boxMap({ minX, minY, maxX, maxY }: Box): Matrix | null {
  const [a, d] = [maxX - minX, maxY - minY];
  return a > 0 && d > 0 ? { a, b: 0, c: 0, d, e: minX, f: minY } : null;
}

type DeclaredOf = (e: SvgElement) => Readonly<Record<string, string>>;

export type Stop = { at: number; colour: string };
/** What a gradient comes to where it is used: one colour, or places of the page and stops; null: nothing is painted. */
export type PlacedGradient = string | (Pick<Gradient, 'kind' | 'from' | 'to' | 'across' | 'focus'> & { stops: Stop[] });

type Use = {
  /** From the user units where it is used to the page. */
  readonly map: Matrix;
  /** The box around what is painted, in those user units. */
  readonly box: Box;
  /** The same on the page. */
  readonly pageBox: Box;
  readonly measures: Measures;
  readonly alpha: number;
};

/** A `linearGradient` or `radialGradient` where it is used (SVG 2, 14.2). Null where there is nothing to paint. */
export function placedGradient(
  tree: SvgTree,
  element: SvgElement,
  use: Use,
  declaredOf: DeclaredOf,
): { paint: PlacedGradient; isBoxed: boolean } | null {
  const chain = chainOf(tree, element);
  const stops = keptStops(chain, declaredOf, use.alpha);
  if (stops.length === 0) return null;
  const isBoxed = saidBy(chain, 'gradientUnits') !== 'userSpaceOnUse';
  const frame = isBoxed ? boxMap(use.box) : undefined;
  if (frame === null) return null;
  const own = transformOf(saidBy(chain, 'gradientTransform') ?? '') ?? undefined;
  const map = [frame, own].reduce<Matrix>((m, n) => (n ? times(m, n) : m), use.map);
  const last = stops.at(-1)!.colour;
  if (stops.length === 1 || Math.abs(map.a * map.d - map.b * map.c) < 1e-12) return { paint: last, isBoxed };
  const length = (key: string, along: Along, other: string): number => {
    const text = saidBy(chain, key) ?? other;
    const figure = figureOf(text);
    if (isBoxed) return figure === null ? 0 : figure.unit === '%' ? figure.value / 100 : figure.value;
    return lengthOf(text, use.measures, along) ?? 0;
  };
  const spread = saidBy(chain, 'spreadMethod');
  const paint =
    element.name === 'linearGradient'
      ? linear(length, map, stops)
      : radial(length, map, stops, !!saidBy(chain, 'fx'), !!saidBy(chain, 'fy'));
  if (typeof paint === 'string' || (spread !== 'reflect' && spread !== 'repeat')) return { paint, isBoxed };
  return { paint: repeated(paint, use.pageBox, spread === 'reflect'), isBoxed };
}

type Length = (key: string, along: Along, other: string) => number;

function linear(length: Length, map: Matrix, stops: Stop[]): PlacedGradient {
  const p: Point = { x: length('x1', 'x', '0%'), y: length('y1', 'y', '0%') };
  const q: Point = { x: length('x2', 'x', '100%'), y: length('y2', 'y', '0%') };
  if (distance(p, q) < 1e-9) return stops.at(-1)!.colour;
  const [from, to] = [mapPoint(map, p), mapPoint(map, q)];
  // Places of one colour lie along where the perpendicular comes to lie: across that the colours go over.
  const along = subtract(mapPoint(map, { x: p.x - (q.y - p.y), y: p.y + (q.x - p.x) }), from);
  const l = Math.hypot(along.x, along.y);
  const [nx, ny] = [-along.y / l, along.x / l];
  const way = (to.x - from.x) * nx + (to.y - from.y) * ny;
  return { kind: 'linear', from, to: { x: from.x + way * nx, y: from.y + way * ny }, stops };
}

function radial(length: Length, map: Matrix, stops: Stop[], hasFx: boolean, hasFy: boolean): PlacedGradient {
  const c: Point = { x: length('cx', 'x', '50%'), y: length('cy', 'y', '50%') };
  const r = length('r', 'both', '50%');
  if (!(r > 0)) return stops.at(-1)!.colour;
  const inner = Math.min(0.999, Math.max(0, length('fr', 'both', '0%') / r));
  let f: Point = { x: hasFx ? length('fx', 'x', '0') : c.x, y: hasFy ? length('fy', 'y', '0') : c.y };
  // A focus outside is drawn in to the rim.
  const off = distance(c, f) / r;
  if (off > 0.999) f = { x: c.x + ((f.x - c.x) / off) * 0.999, y: c.y + ((f.y - c.y) / off) * 0.999 };
  const [from, to, across] = [c, { x: c.x + r, y: c.y }, { x: c.x, y: c.y + r }].map((p) => mapPoint(map, p));
  return {
    kind: 'radial',
    from,
    to,
    // In shares of a box that is not square a ring is none by itself.
    across,
    ...(off > 1e-6 && { focus: mapPoint(map, f) }),
    stops: inner > 0 ? stops.map((s) => ({ ...s, at: inner + s.at * (1 - inner) })) : stops,
  };
}

const kept = new WeakMap<SvgElement, { alpha: number; stops: Stop[] }>();

/** The same gradient is used again and again. */
function keptStops(chain: readonly SvgElement[], declaredOf: DeclaredOf, alpha: number): Stop[] {
  let known = kept.get(chain[0]);
  if (known?.alpha !== alpha) kept.set(chain[0], (known = { alpha, stops: stopsOf(chain, declaredOf, alpha) }));
  return known.stops;
}

function stopsOf(chain: readonly SvgElement[], declaredOf: DeclaredOf, alpha: number): Stop[] {
  const owner = chain.find((e) => e.children.some((c) => c.name === 'stop'));
  let last = 0;
  const stops = (owner?.children ?? []).flatMap((e): Stop[] => {
    if (e.name !== 'stop') return [];
    const said = declaredOf(e);
    last = Math.max(last, shareOf(said.offset ?? '0') ?? 0);
    const text = (said['stop-color'] ?? '#000000').trim();
    const current = (said.color ?? declaredOf(owner!).color ?? '#000000').trim();
    const colour = colourOf(text.toLowerCase() === 'currentcolor' ? current : text) ?? '#000000';
    const own = shareOf(said['stop-opacity'] ?? '1') ?? 1;
    return [{ at: last, colour: withAlpha(colour, alphaOf(colour) * own * alpha) }];
  });
  if (stops.length <= MOST_STOPS) return stops;
  return Array.from({ length: MOST_STOPS }, (_, i) => stops[Math.round((i * (stops.length - 1)) / (MOST_STOPS - 1))]);
}

/** A gradient that goes on over a box, again and again, or to and fro, with the stops written out. As far as stops suffice. */
function repeated(g: Exclude<PlacedGradient, string>, box: Box, toAndFro: boolean): PlacedGradient {
  const { from, to, across, stops } = g;
  const [u, v] = [subtract(to, from), across ? subtract(across, from) : { x: from.y - to.y, y: to.x - from.x }];
  const back = inverseOf({ a: u.x, b: u.y, c: v.x, d: v.y, e: from.x, f: from.y });
  const corners = [box.minX, box.maxX].flatMap((x) => [box.minY, box.maxY].map((y) => mapPoint(back, { x, y })));
  const reach = corners.map((p) => (g.kind === 'linear' ? p.x : Math.hypot(p.x, p.y)));
  // About a focus that is not in the middle the rings grow to one side: they reach less far on the other.
  const spare = g.focus ? 2 : 1;
  const first = g.kind === 'linear' ? Math.floor(Math.min(...reach)) : 0;
  const wanted = Math.ceil(Math.max(...reach) * spare) - first;
  const count = Math.max(1, Math.min(wanted, Math.floor(MOST_STOPS / stops.length)));
  const all = Array.from({ length: count }, (_, i): Stop[] => {
    const isBack = toAndFro && Math.abs(first + i) % 2 === 1;
    const own = isBack ? stops.toReversed().map((s) => ({ ...s, at: 1 - s.at })) : stops;
    return own.map((s) => ({ ...s, at: (i + s.at) / count }));
  }).flat();
  const origin = g.focus ?? from;
  const grown = (p: Point, about: Point): Point => ({
    x: about.x + (p.x - about.x) * count,
    y: about.y + (p.y - about.y) * count,
  });
  if (g.kind === 'radial')
    return {
      ...g,
      from: grown(from, origin),
      to: grown(to, origin),
      ...(across && { across: grown(across, origin) }),
      stops: all,
    };
  const start = { x: from.x + u.x * first, y: from.y + u.y * first };
  return { ...g, from: start, to: { x: start.x + u.x * count, y: start.y + u.y * count }, stops: all };
}

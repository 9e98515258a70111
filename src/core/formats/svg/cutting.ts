import { alphaOf } from '../../colour/colour';
import { runFromCubics } from '../../drawing/fromCubics';
import { cubicsOf, reversed } from '../../drawing/run';
import { polygonOf } from '../../drawing/outline';
import type { Line, Run } from '../../drawing/schema';
import { cubicArea } from '../../geometry/cubic';
import { growthOf, moving, times } from '../../geometry/matrix';
import type { Box } from '../../geometry/point';
import { isWithin } from '../../geometry/polygon';
import { melted, without } from '../../ink/melt';
import { cuttingLine, outlineRuns, strokeBody, styleOf } from './lines';
import type { SvgPaint } from './look';
import { MOST_WITHIN, type Context, type Making } from './making';
import { boxMap } from './paintServers';
import { outlineOf } from './shapes';
import { placeAt, placeOf, spokenOf } from './placing';
import type { SvgElement } from './tree';

/** What is seen of something: only what lies in all of these, let through by so much; null where nothing is. */
export type Cut = { readonly lines: Line[]; readonly opacity: number } | null;
export const uncut: Cut = { lines: [], opacity: 1 };

/** An area that cuts, how its runs go together, and how much it lets through, 0…1; null where that is not one figure. */
type Area = { readonly runs: readonly Run[]; readonly evenOdd: boolean; readonly light: number | null };
/** What lets less through is black. */
const DARK = 0.004;

/** Outlines of more curves than this are not worked out anew: they are taken together as they are. */
const MOST_CURVES = 600;

/** What a `clipPath` leaves of an element (CSS Masking 1, 5): `context` and `box` are of the element. */
export const clippedBy = (making: Making, id: string, context: Context, box: () => Box): Cut =>
  keptCut(making, id, context, box, newlyClipped);

/** What a `mask` leaves of an element, where it is as simple as a clip: white, one grey, or black within white. */
export const maskedBy = (making: Making, id: string, context: Context, box: () => Box): Cut =>
  keptCut(making, id, context, box, newlyMasked);

type Cutting = (making: Making, element: SvgElement, context: Context, box: () => Box) => Cut;
const cuts = new WeakMap<SvgElement, { key: string; cut: Cut }>();

/** What cuts many things from one place alike is worked out once, unless it goes by the things' own boxes. */
function keptCut(making: Making, id: string, context: Context, box: () => Box, make: Cutting): Cut {
  const element = making.tree.byId.get(id);
  if (!element || context.within.includes(element) || context.within.length >= MOST_WITHIN) return uncut;
  const key = JSON.stringify([context.map, context.measures]);
  const known = cuts.get(element);
  if (known?.key === key)
    return known.cut && { ...known.cut, lines: known.cut.lines.map((l) => ({ ...l, id: making.id('clip') })) };
  let isOwn = false;
  const cut = make(making, element, context, () => ((isOwn = true), box()));
  if (!isOwn) cuts.set(element, { key, cut });
  return cut;
}

function newlyClipped(making: Making, element: SvgElement, context: Context, box: () => Box): Cut {
  if (element.name !== 'clipPath') return uncut;
  const inner = contentContext(making, element, 'clipPathUnits', context, box);
  if (!inner) return null;
  const own = making.lookInPlace(element, context.measures).own.clip;
  const around = own ? clippedBy(making, own, inner.outer, box) : uncut;
  if (!around) return null;
  const children = element.children.filter((c) => c.name !== 'title' && c.name !== 'desc');
  const areas = children.flatMap((c) => areasOf(making, c, inner.context, 'clip'));
  // An only child may be clipped itself.
  const nested =
    children.length === 1 ? making.lookOf(children[0], inner.context.look, context.measures).own.clip : null;
  const within = nested ? clippedBy(making, nested, inner.context, box) : uncut;
  const all = united(areas);
  if (!all || !within) return null;
  return {
    lines: [...around.lines, ...within.lines, cuttingLine(making.id('clip'), all.runs, all.evenOdd)],
    opacity: 1,
  };
}

function newlyMasked(making: Making, element: SvgElement, context: Context, box: () => Box): Cut {
  if (element.name !== 'mask') return uncut;
  const inner = contentContext(making, element, 'maskContentUnits', context, box);
  if (!inner) return null;
  const isByAlpha = making.declaredOf(element)['mask-type'] === 'alpha';
  const areas = element.children.flatMap((c) => areasOf(making, c, inner.context, isByAlpha ? 'alpha' : 'light'));
  const lights = areas.map((a) => a.light ?? NaN);
  const shades = new Set(lights.filter((v) => v > DARK).map((v) => Math.round(v * 250)));
  if (shades.size > 1 || lights.some(Number.isNaN)) {
    making.drop('mask', 'One with shades in it cannot be kept; what it cuts is shown whole.');
    return uncut;
  }
  let seen: Area | null = null;
  for (const area of areas) {
    if (area.light! > DARK) seen = seen ? united([seen, area]) : area;
    else if (seen) seen = minus(seen, area);
  }
  if (!seen || seen.runs.length === 0) return null;
  return { lines: [cuttingLine(making.id('clip'), seen.runs, seen.evenOdd)], opacity: seen.light! };
}

/** What an area is there for: a clip, or a mask, by its light or by how much it covers. */
type Purpose = 'clip' | 'light' | 'alpha';

/** How much a mask lets through where something is painted so; null where it is not of one colour. */
function lightOf(paint: SvgPaint, alpha: number, purpose: Purpose): number | null {
  if (purpose === 'clip') return 1;
  if (paint.kind !== 'colour') return null;
  const covers = alphaOf(paint.colour) * alpha;
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(paint.colour.slice(i, i + 2), 16) / 255);
  return purpose === 'alpha' ? covers : covers * (0.2125 * r + 0.7154 * g + 0.0721 * b);
}

function contentContext(
  making: Making,
  element: SvgElement,
  units: string,
  context: Context,
  box: () => Box,
): { context: Context; outer: Context } | null {
  const frame = element.attributes[units] === 'objectBoundingBox' ? boxMap(box()) : undefined;
  if (frame === null) return null;
  const outer = { ...context, within: [...context.within, element] };
  const placed = times(frame ? times(context.map, frame) : context.map, placeOf(making, element));
  return { outer, context: { ...outer, map: placed, look: making.lookInPlace(element, context.measures) } };
}

/** The areas that an element and what it holds or speaks of make up. */
function areasOf(making: Making, element: SvgElement, context: Context, purpose: Purpose): Area[] {
  if (!making.mayDraw()) return [];
  const look = making.lookOf(element, context.look, context.measures);
  if (!look.own.isShown) return [];
  const own: Context = { ...context, map: times(context.map, placeOf(making, element)), look };
  const areas = ownAreas(making, element, own, purpose);
  if (purpose === 'clip') return areas;
  const isCut = look.own.clip !== null || look.own.mask !== null;
  return areas.map((a) => ({ ...a, light: isCut || a.light === null ? null : a.light * look.own.opacity }));
}

function ownAreas(making: Making, element: SvgElement, context: Context, purpose: Purpose): Area[] {
  const { look, map } = context;
  if (element.name === 'text') making.drop('text', 'Letters have to be turned into paths first.');
  if (element.name === 'use') {
    const target = spokenOf(making, element);
    if (!target || context.within.includes(target) || context.within.length >= MOST_WITHIN) return [];
    const by = moving(placeAt(making, element, context.measures));
    return areasOf(making, target, { ...context, map: times(map, by), within: [...context.within, target] }, purpose);
  }
  if (purpose !== 'clip' && (element.name === 'g' || element.name === 'a'))
    return element.children.flatMap((c) => areasOf(making, c, context, purpose));
  if (purpose !== 'clip' && element.name === 'image') return [{ runs: [], evenOdd: false, light: null }];
  const data = outlineOf(element.name, making.declaredOf(element), context.measures);
  const runs = data === null || !look.isVisible ? [] : outlineRuns(making, data, map);
  if (data === null || runs.length === 0) return [];
  const closed = runs.map((r) => (r.closed || r.nodes.length < 2 ? r : { ...r, closed: true }));
  const evenOdd = purpose === 'clip' ? look.clipEvenOdd : look.evenOdd;
  const filled = { runs: closed, evenOdd, light: lightOf(look.fill, look.fillAlpha, purpose) };
  if (purpose === 'clip') return [filled];
  const hasStroke = look.stroke.kind !== 'none' && look.width > 0;
  const body = hasStroke ? strokeBody({ data, element, look, context }, runs, styleOf(look, growthOf(map), 1)) : [];
  const stroked = { runs: body, evenOdd: false, light: lightOf(look.stroke, look.strokeAlpha, purpose) };
  return [...(look.fill.kind === 'none' ? [] : [filled]), ...(body.length > 0 ? [stroked] : [])];
}

/** Areas as one: what lies in any of them. Null where there is none. */
function united(areas: readonly Area[]): Area | null {
  if (areas.length < 2) return areas[0] ?? null;
  const runs = areas.flatMap((a) => asNonzero(a));
  return { runs, evenOdd: false, light: areas[0].light };
}

/** An area's runs for the nonzero rule, outer ones all the one way round, so that others may be laid over them. */
function asNonzero({ runs, evenOdd }: Area): Run[] {
  if (runs.length === 1) return turnedAs(runs, false);
  if (!evenOdd && countCurves(runs) <= MOST_CURVES)
    return turnedAs(
      melted(runs.map(cubicsOf)).map((o) => runFromCubics(o, true)),
      true,
    );
  const polygons = runs.map(polygonOf);
  return runs.flatMap((run, i) => {
    const depth = polygons.filter((p, k) => k !== i && polygons[i].length > 0 && isWithin(polygons[i][0], p)).length;
    const [outer] = turnedAs([run], false);
    return depth % 2 === 0 ? [outer] : [reversed(outer)];
  });
}

/** Runs turned so that the largest goes around the one way; the others by themselves, or as they lie to it. */
function turnedAs(runs: readonly Run[], together: boolean): Run[] {
  const areas = runs.map((r) => cubicsOf(r).reduce((sum, c) => sum + cubicArea(c), 0));
  const largest = areas.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0);
  return runs.map((r, i) => ((together ? largest : areas[i]) < 0 ? reversed(r) : r));
}

function minus(a: Area, b: Area): Area {
  const [from, taken] = [asNonzero(a), asNonzero(b)];
  if (countCurves(from) + countCurves(taken) > MOST_CURVES)
    return { ...a, runs: [...from, ...taken.map(reversed)], evenOdd: false };
  const left = without(from.map(cubicsOf), taken.map(cubicsOf));
  return { ...a, runs: left.map((o) => runFromCubics(o, true)), evenOdd: false };
}

const countCurves = (runs: readonly Run[]): number => runs.reduce((n, r) => n + r.nodes.length, 0);

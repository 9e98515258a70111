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
import { cuttingLine, outlineRuns, strokeBody, styleOf, unevenness } from './lines';
import type { Look } from './look';
import { MOST_WITHIN, type Context, type Making } from './making';
import { boxMap } from './paintServers';
import { outlineOf } from './shapes';
import { placeAt, placeOf, spokenOf } from './placing';
import type { SvgElement } from './tree';

/** What is seen of something: only what lies in all of these, let through by so much; null where nothing is. */
export type Cut = { readonly lines: Line[]; readonly opacity: number } | null;
export const uncut: Cut = { lines: [], opacity: 1 };

/** An area that cuts, how its runs go together, and the look of what it is of. */
type Area = { readonly runs: readonly Run[]; readonly evenOdd: boolean; readonly look: Look };

/** Outlines of more curves than this are not worked out anew: they are taken together as they are. */
const MOST_CURVES = 600;

/** What a `clipPath` leaves of an element (CSS Masking 1, 5): `context` and `box` are of the element. */
export function clippedBy(making: Making, id: string, context: Context, box: () => Box): Cut {
  return keptCut(making, id, context, () => newlyClipped(making, id, context, box));
}

const cuts = new WeakMap<SvgElement, { key: string; cut: Cut }>();

/** What cuts many things from one place alike is worked out once. */
function keptCut(making: Making, id: string, { map, measures }: Context, make: () => Cut): Cut {
  const element = making.tree.byId.get(id);
  if (!element || element.attributes.clipPathUnits || element.attributes.maskContentUnits) return make();
  const key = JSON.stringify([map, measures]);
  let known = cuts.get(element);
  if (known?.key !== key) cuts.set(element, (known = { key, cut: make() }));
  const { cut } = known;
  return cut && { ...cut, lines: cut.lines.map((l) => ({ ...l, id: making.id('clip') })) };
}

function newlyClipped(making: Making, id: string, context: Context, box: () => Box): Cut {
  const element = making.tree.byId.get(id);
  if (element?.name !== 'clipPath' || context.within.includes(element) || context.within.length >= MOST_WITHIN)
    return uncut;
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

/** What a `mask` leaves of an element, where it is as simple as a clip: white, one grey, or black within white. */
export function maskedBy(making: Making, id: string, context: Context, box: () => Box): Cut {
  return keptCut(making, id, context, () => newlyMasked(making, id, context, box));
}

function newlyMasked(making: Making, id: string, context: Context, box: () => Box): Cut {
  const element = making.tree.byId.get(id);
  if (element?.name !== 'mask' || context.within.includes(element) || context.within.length >= MOST_WITHIN)
    return uncut;
  const inner = contentContext(making, element, 'maskContentUnits', context, box);
  if (!inner) return null;
  const byAlpha = making.declaredOf(element)['mask-type'] === 'alpha';
  const areas = element.children.flatMap((c) => areasOf(making, c, inner.context, 'mask'));
  const lights = areas.map((a) => lightOf(a.look, byAlpha));
  const unknown = (): Cut => {
    making.drop('mask', 'One with shades in it cannot be kept; what it cuts is shown whole.');
    return uncut;
  };
  if (lights.some((v) => v === null)) return unknown();
  const kept = areas.map((area, i) => ({ area, light: lights[i]! })).filter(({ light }, i) => light > 0.004 || i > 0);
  const shades = [...new Set(kept.map((k) => Math.round(k.light * 250)).filter((v) => v > 0))];
  if (shades.length === 0) return null;
  if (shades.length > 1) return unknown();
  let seen: Area | null = null;
  for (const { area, light } of kept) {
    const next: Area = { ...area };
    if (light > 0.004) seen = seen ? united([seen, next]) : next;
    else if (seen) seen = minus(seen, next);
  }
  if (!seen || seen.runs.length === 0) return null;
  return { lines: [cuttingLine(making.id('clip'), seen.runs, seen.evenOdd)], opacity: shades[0] / 250 };
}

/** How much a mask lets through where something of a look is: the light of its fill; null where it is not of one colour. */
function lightOf(look: Look, byAlpha: boolean): number | null {
  if (look.fill.kind === 'none') return 0;
  if (look.fill.kind !== 'colour' || look.own.mask || look.own.clip) return null;
  const { colour } = look.fill;
  const alpha = alphaOf(colour) * look.fillAlpha * look.own.opacity;
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16) / 255);
  return byAlpha ? alpha : alpha * (0.2125 * r + 0.7154 * g + 0.0721 * b);
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
function areasOf(making: Making, element: SvgElement, context: Context, what: 'clip' | 'mask'): Area[] {
  if (!making.mayDraw()) return [];
  const look = making.lookOf(element, context.look, context.measures);
  if (!look.own.isShown) return [];
  const map = times(context.map, placeOf(making, element));
  const own: Context = { ...context, map, look };
  if (element.name === 'text') making.drop('text', 'Letters have to be turned into paths first.');
  if (element.name === 'use') {
    const target = spokenOf(making, element);
    if (!target || context.within.includes(target) || context.within.length >= MOST_WITHIN) return [];
    const by = moving(placeAt(making, element, context.measures));
    return areasOf(making, target, { ...own, map: times(map, by), within: [...context.within, target] }, what);
  }
  if (what === 'mask' && (element.name === 'g' || element.name === 'a'))
    return element.children.flatMap((c) => areasOf(making, c, own, what));
  if (what === 'mask' && element.name === 'image') making.drop('mask', 'One made of a picture cannot be kept.');
  const data = outlineOf(element.name, making.declaredOf(element), context.measures);
  if (data === null || !look.isVisible) return [];
  const runs = outlineRuns(making, data, map);
  if (runs.length === 0) return [];
  const evenOdd = what === 'clip' ? look.clipEvenOdd : look.evenOdd;
  const filled: Area = {
    runs: runs.map((r) => (r.closed || r.nodes.length < 2 ? r : { ...r, closed: true })),
    evenOdd,
    look,
  };
  if (what === 'clip' || look.stroke.kind === 'none' || look.width === 0) return [filled];
  const style = styleOf(look, growthOf(map), 1);
  const body = strokeBody({ data, element, look, context: own }, unevenness(map) > 1.002, runs, style);
  const stroked: Area = {
    runs: body,
    evenOdd: false,
    look: { ...look, fill: look.stroke, fillAlpha: look.strokeAlpha },
  };
  return look.fill.kind === 'none' ? [stroked] : [filled, stroked];
}

/** Areas as one: what lies in any of them. Null where there is none. */
function united(areas: readonly Area[]): Area | null {
  if (areas.length < 2) return areas[0] ?? null;
  const runs = areas.flatMap((a) => asNonzero(a));
  return { runs, evenOdd: false, look: areas[0].look };
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

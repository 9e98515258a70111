import type { Step } from '../change/change';
import { edit, sidesOf, type Edit } from '../change/edit';
import { findItem, type FoundItem } from '../drawing/find';
import { isFlat, isGroup, isLine } from '../drawing/items';
import type { Gradient, Laying, Paint } from '../drawing/paint';
import { skeletonBox } from '../drawing/run';
import type { Drawing, Item } from '../drawing/schema';
import { opaque } from '../colour/colour';
import { toneOf, withTone } from '../colour/tone';
import { colourOf } from '../scene/ink';
import type { Box, Point } from '../geometry/point';
import { lineStyleStep } from './lines';
import { fillOf } from './shades';

/** Fills of closed lines and of flats: colours, and gradients that are pulled on the page. */

const foundIn = (d: Drawing, ids: Iterable<string>): FoundItem[] => [...ids].flatMap((id) => findItem(d, id) ?? []);

/** Items filled anew; null takes the fill of lines away. What their sheets' next lines take stays as it is. */
export function setFill(d: Drawing, ids: Iterable<string>, fill: Paint | null, label = 'Fill'): Edit {
  const steps = foundIn(d, ids).flatMap((f): Step[] => {
    if (isFlat(f.item)) {
      const sides = fill === null ? null : sidesOf<{ fill: Paint }>(f.item, { fill });
      return sides ? [{ step: 'setFlat', sheet: f.sheet.id, id: f.item.id, ...sides }] : [];
    }
    if (!isLine(f.item) || f.item.style.fill === fill) return [];
    return [lineStyleStep({ ...f, line: f.item }, { ...f.item.style, fill })];
  });
  return edit(label, steps);
}

/** By which rule closed lines with several runs, or that cross themselves, are filled. */
export function setFillRule(d: Drawing, ids: Iterable<string>, evenOdd: boolean): Edit {
  const steps = foundIn(d, ids).flatMap((f): Step[] => {
    if (!isLine(f.item) || (f.item.style.fillRule === 'evenodd') === evenOdd) return [];
    const { fillRule: _, ...style } = f.item.style;
    return [lineStyleStep({ ...f, line: f.item }, evenOdd ? { ...style, fillRule: 'evenodd' } : style)];
  });
  return edit('Rule of the fill', steps);
}

/** How items are laid over what lies below: how much they cover, and by which blend. */
export function setLaying(d: Drawing, ids: Iterable<string>, laying: Laying): Edit {
  const steps = foundIn(d, ids).flatMap(({ sheet, item }): Step[] => {
    const sides = sidesOf<Laying>({ opacity: 1, blend: 'normal', ...pickLaying(item) }, laying);
    if (!sides) return [];
    const step = isFlat(item) ? 'setFlat' : isGroup(item) ? 'setGroup' : isLine(item) ? 'setLine' : 'setPicture';
    return [{ step, sheet: sheet.id, id: item.id, ...sides } as Step];
  });
  return edit(laying.blend ? 'Blend' : 'Opacity', steps);
}

const pickLaying = ({ opacity, blend }: Item): Laying => ({
  ...(opacity !== undefined && { opacity }),
  ...(blend && { blend }),
});

export const gradientById = (d: Pick<Drawing, 'gradients'>, id: string): Gradient | undefined =>
  d.gradients?.find((g) => g.id === id);

/** The gradient that an item is filled with; null where it is none. */
export function gradientOfItem(d: Drawing, item: Item): Gradient | null {
  const fill = fillOf(item);
  return typeof fill === 'object' && fill !== null && 'gradient' in fill
    ? (gradientById(d, fill.gradient) ?? null)
    : null;
}

const gradientsStep = (d: Drawing, gradients: readonly Gradient[]): Step =>
  ({
    step: 'setDrawing',
    before: { gradients: [...(d.gradients ?? [])] },
    after: { gradients: [...gradients] },
  }) as Step;

/** How much lighter a fresh gradient ends than it begins. */
const LIGHTER = 0.2;

/** Items filled with a new gradient of their own, from the fill that they have to a lighter one; and its id. */
export function fillWithGradient(
  d: Drawing,
  ids: Iterable<string>,
  { kind, from, to }: Pick<Gradient, 'kind' | 'from' | 'to'>,
  id: string,
): Edit {
  const items = foundIn(d, ids).map((f) => f.item);
  const [first] = items;
  if (!first) return edit('Fill with a gradient');
  const fill = fillOf(first);
  const isPlain = fill !== null && !(typeof fill === 'object' && 'gradient' in fill);
  const colour = opaque(fill ? colourOf(d, fill) : '#c8b89a');
  const begin = isPlain && typeof fill === 'object' && 'swatch' in fill ? { swatch: fill.swatch } : colour;
  const tone = toneOf(colour);
  const other = withTone(colour, tone > 1 - LIGHTER ? tone - LIGHTER : tone + LIGHTER);
  const gradient: Gradient = {
    id,
    name: '',
    kind,
    space: 'item',
    from,
    to,
    stops: [
      { at: 0, colour: begin },
      { at: 1, colour: other },
    ],
  };
  const used = items.map((item) => item.id);
  return edit(
    'Fill with a gradient',
    gradientsStep(d, [...(d.gradients ?? []), gradient]),
    setFill(d, used, { gradient: id }).steps,
  );
}

/** Some of a gradient set: its places, kind or stops, which stay in their order. */
export function setGradient(d: Drawing, id: string, sides: Partial<Omit<Gradient, 'id'>>): Edit {
  const stops = sides.stops && { stops: [...sides.stops].sort((a, b) => a.at - b.at) };
  // Where its rings are drawn anew they are round again, and about their middle.
  const isDrawn = sides.from !== undefined || sides.to !== undefined || sides.kind !== undefined;
  const next = (d.gradients ?? []).map((g): Gradient => {
    if (g.id !== id) return g;
    const { across, focus, ...round } = g;
    return { ...round, ...(!isDrawn && { ...(across && { across }), ...(focus && { focus }) }), ...sides, ...stops };
  });
  const isSame = JSON.stringify(next) === JSON.stringify(d.gradients ?? []);
  return edit('Change the gradient', isSame ? [] : gradientsStep(d, next));
}

/** The box that the places of a gradient in an item's own space are shares of. */
export const boxOfItem = (item: Item): Box | null => ('runs' in item ? skeletonBox({ runs: item.runs }) : null);

/** Between an item's own space and the page. */
export const fromItem = (box: Box, p: Point): Point => ({
  x: box.minX + p.x * (box.maxX - box.minX),
  y: box.minY + p.y * (box.maxY - box.minY),
});
export const intoItem = (box: Box, p: Point): Point => ({
  x: (p.x - box.minX) / Math.max(1e-6, box.maxX - box.minX),
  y: (p.y - box.minY) / Math.max(1e-6, box.maxY - box.minY),
});

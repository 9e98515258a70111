import type { Step } from '../change/change';
import { sidesOf } from '../change/edit';
import { flatsIn, linesOf } from '../drawing/items';
import type { Flat } from '../drawing/item';
import { isSamePaint, isShade, type BasePaint, type Gradient, type Paint } from '../drawing/paint';
import { findLine } from '../drawing/find';
import type { Drawing, Sheet, Style } from '../drawing/schema';
import { lineStyleStep } from './lines';

/** What a colour is used for. */
export type PaintUse = 'stroke' | 'fill';
/** What becomes of a colour, or one of the palette's, wherever it is painted with. */
export type Remake = (base: BasePaint, use: PaintUse) => BasePaint;

export type Where = {
  /** Just these items; else all, the gradients too. */
  readonly ids?: ReadonlySet<string> | null;
  readonly sheets?: (s: Sheet) => boolean;
};

/** A paint with the colour that it begins with made another. */
export function remade(paint: Paint, use: PaintUse, make: Remake): Paint {
  if (isShade(paint)) {
    const of = paint.of === 'beside' ? paint.of : make(paint.of, use);
    return of === paint.of ? paint : { ...paint, of };
  }
  return typeof paint === 'object' && 'gradient' in paint ? paint : make(paint, use);
}

const restyled = (style: Style, make: Remake): Style => {
  const stroke = remade(style.stroke, 'stroke', make);
  const fill = style.fill && remade(style.fill, 'fill', make);
  return isSamePaint(stroke, style.stroke) && isSamePaint(fill, style.fill) ? style : { ...style, stroke, fill };
};

/** Everything that is painted, painted anew. What the next lines of the sheets take is so as well, where all is. */
export function repainted(d: Drawing, make: Remake, { ids = null, sheets = () => true }: Where = {}): Step[] {
  const isIn = (id: string): boolean => !ids || ids.has(id);
  const items = d.sheets.filter(sheets).flatMap((sheet): Step[] => {
    const lines = linesOf(sheet).flatMap((line): Step[] => {
      const style = isIn(line.id) ? restyled(line.style, make) : line.style;
      return style === line.style ? [] : [lineStyleStep(findLine(d, line.id)!, style)];
    });
    const flats = flatsIn(sheet.items).flatMap((flat): Step[] => {
      const sides = isIn(flat.id) && sidesOf<Pick<Flat, 'fill'>>(flat, { fill: remade(flat.fill, 'fill', make) });
      return sides ? [{ step: 'setFlat', sheet: sheet.id, id: flat.id, ...sides }] : [];
    });
    const next = ids ? sheet.style : restyled(sheet.style, make);
    const own: Step[] =
      next === sheet.style
        ? []
        : [{ step: 'setSheet', id: sheet.id, before: { style: sheet.style }, after: { style: next } }];
    return [...lines, ...flats, ...own];
  });
  return ids ? items : [...items, ...regraded(d, make)];
}

function regraded(d: Drawing, make: Remake): Step[] {
  const before = d.gradients ?? [];
  const after = before.map((g): Gradient => {
    const stops = g.stops.map((s) => ({ ...s, colour: make(s.colour, 'fill') }));
    return stops.every((s, i) => isSamePaint(s.colour, g.stops[i].colour)) ? g : { ...g, stops };
  });
  return after.every((g, i) => g === before[i])
    ? []
    : [{ step: 'setDrawing', before: { gradients: [...before] }, after: { gradients: after } } as Step];
}

/** Hears of every colour that is painted with: what it begins with, for what, and by which item. */
export function eachPaint(d: Drawing, hear: (base: BasePaint, use: PaintUse, id: string) => void): void {
  const tell = (paint: Paint, use: PaintUse, id: string): void => {
    if (isShade(paint)) {
      if (paint.of !== 'beside') hear(paint.of, use, id);
    } else if (typeof paint === 'object' && 'gradient' in paint)
      d.gradients?.find((g) => g.id === paint.gradient)?.stops.forEach((s) => hear(s.colour, use, id));
    else hear(paint, use, id);
  };
  for (const sheet of d.sheets) {
    for (const { id, style } of linesOf(sheet)) {
      if (style.width > 0) tell(style.stroke, 'stroke', id);
      if (style.fill) tell(style.fill, 'fill', id);
    }
    for (const { id, fill } of flatsIn(sheet.items)) tell(fill, 'fill', id);
  }
}

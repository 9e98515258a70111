import type { Item } from '../../drawing/schema';
import { moving, times } from '../../geometry/matrix';
import { localBox } from './boxes';
import { clippedBy, maskedBy, uncut } from './cutting';
import { lengthOf } from './lengths';
import { cuttingLine, linesOfShape } from './lines';
import { livingLine } from './living';
import { firstLook } from './look';
import { laying, MOST_WITHIN, type Context, type Making } from './making';
import { patternItems } from './patterns';
import { pictureItems } from './pictureItems';
import { placeAt, placeOf, spokenOf } from './placing';
import { withinRectangle } from './rectangle';
import { outlineOf } from './shapes';
import type { SvgElement } from './tree';
import { titleOf } from './title';
import { fitted, fittingOf, viewBoxOf } from './viewport';

/** Elements that draw nothing where they stand, or only where they are spoken of. */
const silent: ReadonlySet<string> = new Set(
  `defs clipPath mask symbol marker pattern linearGradient radialGradient stop filter metadata style title desc view cursor
  color-profile font font-face hatch solidColor`.split(/\s+/),
);
/** Why what would draw something is left out. */
const whyDropped: Readonly<Record<string, string>> = {
  script: 'Nothing in a picture is ever run.',
  foreignObject: 'It is not drawn by SVG itself.',
  text: 'Letters have to be turned into paths first.',
  animate: 'A drawing does not move.',
  animateMotion: 'A drawing does not move.',
  animateTransform: 'A drawing does not move.',
  set: 'A drawing does not move.',
};

/** Makes items of an SVG's elements. */
export class Drawer {
  constructor(private readonly making: Making) {}

  /** The items of an element, from the bottom up; `around` is where it stands. */
  items(e: SvgElement, around: Context): readonly Item[] {
    const { making } = this;
    if (silent.has(e.name) || e.attributes['data-part'] === 'fill' || !making.mayDraw()) return [];
    if (Object.hasOwn(whyDropped, e.name)) {
      making.drop(e.name, whyDropped[e.name]);
      return [];
    }
    const look = making.lookOf(e, around.look, around.measures);
    if (!look.own.isShown) return [];
    const measures = { ...around.measures, fontSize: look.fontSize };
    const context: Context = { ...around, map: times(around.map, placeOf(making, e)), look, measures };
    return this.laid(e, this.content(e, context), context);
  }

  children = (e: SvgElement, context: Context): Item[] => e.children.flatMap((c) => this.items(c, context));

  private content(e: SvgElement, context: Context): readonly Item[] {
    switch (e.name) {
      case 'g':
      case 'a':
        return this.children(e, context);
      case 'svg':
        return this.viewport(e, e, context);
      case 'switch':
        return e.children
          .filter(isForUs)
          .slice(0, 1)
          .flatMap((c) => this.items(c, context));
      case 'use':
        return this.used(e, context);
      case 'image':
        return pictureItems(this.making, e, context);
      default:
        return this.shape(e, context);
    }
  }

  private shape(element: SvgElement, context: Context): Item[] {
    const { making } = this;
    const living = livingLine(making, element, context);
    if (living) return living;
    const data = outlineOf(element.name, making.declaredOf(element), context.measures);
    if (data === null) {
      if (!shapes.has(element.name)) making.drop(element.name, 'It is not known here, and draws nothing.');
      return [];
    }
    const shape = { data, element, look: context.look, context };
    const items = linesOfShape(making, shape, (pattern, runs, evenOdd, alpha) => {
      const tiles = patternItems(making, this, pattern, shape, runs);
      return tiles.length === 0
        ? []
        : [making.group(tiles, { opacity: alpha, clip: cuttingLine(making.id('clip'), runs, evenOdd) })];
    });
    const name = titleOf(element);
    return name && items.length === 1 && items[0].kind === undefined ? [{ ...items[0], name }] : items;
  }

  /** What a `use` speaks of, as if it stood there (SVG 2, 5.6). */
  private used(e: SvgElement, context: Context): readonly Item[] {
    const target = spokenOf(this.making, e);
    if (!target || context.within.includes(target) || context.within.length >= MOST_WITHIN || isAround(target, e)) {
      this.making.drop('use', target ? 'It would draw itself again and again.' : 'What it repeats is not in the file.');
      return [];
    }
    const map = times(context.map, moving(placeAt(this.making, e, context.measures)));
    const inner: Context = { ...context, map, within: [...context.within, target] };
    if (target.name !== 'symbol' && target.name !== 'svg') return this.items(target, inner);
    const look = this.making.lookOf(target, context.look, context.measures);
    if (!look.own.isShown) return [];
    const placed: Context = { ...inner, map: times(map, placeOf(this.making, target)), look };
    return this.laid(target, this.viewport(target, e, placed), placed);
  }

  /** What lies in a viewport of its own; its size may be said by the `use` that it is drawn by. */
  private viewport(e: SvgElement, sized: SvgElement, context: Context): readonly Item[] {
    const { making } = this;
    const said = making.declaredOf(e);
    const side = (key: 'width' | 'height', along: 'x' | 'y'): number => {
      const own = lengthOf(making.declaredOf(sized)[key], context.measures, along);
      return own ?? lengthOf(said[key], context.measures, along) ?? context.measures[key];
    };
    const [width, height] = [side('width', 'x'), side('height', 'y')];
    if (!(width > 0 && height > 0)) return [];
    const at = e.name === 'svg' ? placeAt(making, e, context.measures) : { x: 0, y: 0 };
    const box = viewBoxOf(said.viewBox);
    const origin = times(context.map, moving(at));
    const map = times(origin, fitted(box, { width, height }, fittingOf(said.preserveAspectRatio)));
    const measures = { fontSize: context.look.fontSize, width: box?.width ?? width, height: box?.height ?? height };
    const items = this.children(e, { ...context, map, measures });
    if (items.length === 0 || context.look.own.overflow) return items;
    return withinRectangle(making, items, { x: 0, y: 0, width, height }, origin);
  }

  /** Items as an element is laid over what lies below it: cut, let through, blended. A `g` stays a group. */
  private laid(e: SvgElement, items: readonly Item[], context: Context): readonly Item[] {
    const { own } = context.look;
    if (items.length === 0) return [];
    const box = () => localBox(items, context.map);
    const clip = own.clip ? clippedBy(this.making, own.clip, context, box) : uncut;
    const mask = own.mask ? maskedBy(this.making, own.mask, context, box) : uncut;
    if (!clip || !mask) return [];
    const cuts = [...clip.lines, ...mask.lines];
    const opacity = own.opacity * mask.opacity;
    const name = titleOf(e);
    const isGroup = e.name === 'g' && e.attributes['data-part'] !== 'line';
    let inner = items;
    for (const cut of cuts.slice(1)) inner = [this.making.group(inner, { clip: cut })];
    if (cuts.length > 0 || isGroup)
      return [this.making.group(inner, { name, opacity, blend: own.blend, clip: cuts[0] })];
    if (opacity === 1 && own.blend === 'normal') return inner;
    const [only] = inner;
    if (inner.length > 1 || ((only.blend ?? 'normal') !== 'normal' && own.blend !== 'normal'))
      return [this.making.group(inner, { name, opacity, blend: own.blend })];
    return [{ ...only, ...laying({ opacity: (only.opacity ?? 1) * opacity, blend: only.blend ?? own.blend }) }];
  }
}

const shapes: ReadonlySet<string> = new Set(['path', 'line', 'polyline', 'polygon', 'circle', 'ellipse', 'rect']);

/** The context of what stands at the top of a file. */
export const firstContext = (map: Context['map'], measures: Context['measures']): Context => ({
  map,
  look: firstLook,
  measures,
  within: [],
});

const isAround = (outer: SvgElement, e: SvgElement): boolean => {
  for (let x: SvgElement | null = e; x; x = x.parent) if (x === outer) return true;
  return false;
};

/** Whether a child of a `switch` is drawn: it asks for no language but English, and for nothing beyond SVG (SVG 2, 5.9). */
function isForUs(e: SvgElement): boolean {
  const { systemLanguage, requiredExtensions } = e.attributes;
  if (silent.has(e.name) || requiredExtensions !== undefined) return false;
  return systemLanguage === undefined || systemLanguage.split(',').some((l) => /^en(-|$)/i.test(l.trim()));
}

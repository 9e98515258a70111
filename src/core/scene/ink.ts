import { opaque, shaded } from '../colour/colour';
import { skeletonBox } from '../drawing/run';
import { followsFill, isShade, type Gradient, type Paint, type Shade } from '../drawing/paint';
import type { Drawing, Line } from '../drawing/schema';
import { inverseOf, mapPoint, type Matrix } from '../geometry/matrix';
import { subtract, type Point } from '../geometry/point';
import { fillBeneath } from './beside';

/** A gradient as it is painted: its places on the page, its stops in colours. */
export type GradientInk = {
  readonly id: string;
  readonly kind: Gradient['kind'];
  readonly from: Point;
  readonly to: Point;
  /** The end of the rings' other half axis, where they are no circles. */
  readonly across?: Point;
  readonly focus?: Point;
  readonly stops: readonly { readonly at: number; readonly colour: string }[];
};

/** What something is painted with, looked up: a colour (#rrggbb or #rrggbbaa), or a gradient. */
export type Ink = string | GradientInk;

/** What is seen where a paint speaks of something that is not there. */
const MISSING = '#808080';

/** How dark a tinted line is beside its fill: 0 as light, 1 black. */
export const firstTint = 0.55;

/** The fill that a line encloses or borders; null where there is none. */
export const fillBeside = (d: Drawing, line: Line): Paint | null =>
  line.style.fill && !followsFill(line.style.fill) ? line.style.fill : fillBeneath(d, line);

type Palettes = Pick<Drawing, 'palette' | 'gradients'>;

const swatchColour = (d: Palettes, id: string): string => d.palette?.find((s) => s.id === id)?.colour ?? MISSING;

const gradientOf = (d: Palettes, id: string): Gradient | undefined => d.gradients?.find((g) => g.id === id);

/** The one colour that stands for a paint; of a gradient that of its middle stop. Without a line nothing lies beside it. */
export function colourOf(d: Drawing, paint: Paint, line?: Line): string {
  if (typeof paint === 'string') return paint;
  if (isShade(paint)) return shadeColour(d, paint, line);
  if ('swatch' in paint) return swatchColour(d, paint.swatch);
  const stops = gradientOf(d, paint.gradient)?.stops ?? [];
  const middle = stops[Math.floor(stops.length / 2)]?.colour ?? MISSING;
  return typeof middle === 'string' ? middle : swatchColour(d, middle.swatch);
}

/** The same, as if nothing were let through. */
export const opaqueColourOf = (d: Drawing, paint: Paint, line?: Line): string => opaque(colourOf(d, paint, line));

function shadeColour(d: Drawing, shade: Shade, line: Line | undefined): string {
  if (shade.of !== 'beside')
    return shaded(typeof shade.of === 'string' ? shade.of : swatchColour(d, shade.of.swatch), shade.by);
  const fill = line && fillBeside(d, line);
  return fill ? shaded(colourOf(d, fill), shade.by) : shade.else;
}

/** What a line's stroke or fill is painted with. */
export function inkOf(d: Drawing, paint: Paint, line: Line): Ink {
  const gradient = typeof paint === 'object' && 'gradient' in paint ? gradientOf(d, paint.gradient) : undefined;
  if (!gradient) return colourOf(d, paint, line);
  const box = skeletonBox(line);
  const onPage = (p: Point): Point =>
    gradient.space === 'page'
      ? p
      : { x: box.minX + p.x * (box.maxX - box.minX), y: box.minY + p.y * (box.maxY - box.minY) };
  const colour = (c: Gradient['stops'][number]['colour']): string =>
    typeof c === 'string' ? c : swatchColour(d, c.swatch);
  return {
    id: gradient.id,
    kind: gradient.kind,
    from: onPage(gradient.from),
    to: onPage(gradient.to),
    ...ovalOf(gradient, onPage),
    ...(gradient.focus && { focus: onPage(gradient.focus) }),
    stops: gradient.stops.map((s) => ({ at: s.at, colour: colour(s.colour) })),
  };
}

const ROUND = 1e-6;

/** What makes a gradient's rings no circles on the page. */
function ovalOf({ from, to, across }: Gradient, onPage: (p: Point) => Point): { across?: Point } {
  if (!across) return {};
  const [c, p, q] = [from, to, across].map(onPage);
  const [u, v] = [subtract(p, c), subtract(q, c)];
  const [a, b] = [Math.hypot(u.x, u.y), Math.hypot(v.x, v.y)];
  return Math.abs(a - b) < ROUND * a && Math.abs(u.x * v.x + u.y * v.y) < ROUND * a * a ? {} : { across: q };
}

/**
 * The map that takes rings about the origin of radius 1 to those of a gradient that are no circles; null for one that needs
 * none. Under it the gradient lies from the origin to (1, 0).
 */
export function ovalMap({ from, to, across }: GradientInk): Matrix | null {
  if (!across) return null;
  const [u, v] = [subtract(to, from), subtract(across, from)];
  const map = { a: u.x, b: u.y, c: v.x, d: v.y, e: from.x, f: from.y };
  return Math.abs(map.a * map.d - map.b * map.c) > 1e-9 ? map : null;
}

/** A gradient as it lies before `ovalMap` is done. */
export function beforeMap(ink: GradientInk, map: Matrix): GradientInk {
  const { across: _, focus, ...rest } = ink;
  const inner = focus && mapPoint(inverseOf(map), focus);
  return { ...rest, from: { x: 0, y: 0 }, to: { x: 1, y: 0 }, ...(inner && { focus: inner }) };
}

/** Inks are the same, whatever object they are. */
export const isSameInk = (a: Ink | null, b: Ink | null): boolean =>
  a === b || (typeof a === 'object' && typeof b === 'object' && JSON.stringify(a) === JSON.stringify(b));

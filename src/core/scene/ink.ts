import { opaque, shaded } from '../colour/colour';
import { skeletonBox } from '../drawing/run';
import { followsFill, isShade, type Gradient, type Paint, type Shade } from '../drawing/paint';
import type { Drawing, Line } from '../drawing/schema';
import type { Point } from '../geometry/point';
import { fillBeneath } from './beside';

/** A gradient as it is painted: its places on the page, its stops in colours. */
export type GradientInk = {
  readonly id: string;
  readonly kind: Gradient['kind'];
  readonly from: Point;
  readonly to: Point;
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
    stops: gradient.stops.map((s) => ({ at: s.at, colour: colour(s.colour) })),
  };
}

/** Inks are the same, whatever object they are. */
export const isSameInk = (a: Ink | null, b: Ink | null): boolean =>
  a === b || (typeof a === 'object' && typeof b === 'object' && JSON.stringify(a) === JSON.stringify(b));

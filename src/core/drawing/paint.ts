import { z } from 'zod';
import { colourSchema, idSchema, nameSchema, offsetSchema, share } from './values';

/** One colour: #rrggbb, or #rrggbbaa where it is let through (CSS Color 4, 5.2). */
export const solidSchema = z
  .string()
  .regex(/^#[0-9a-f]{6}([0-9a-f]{2})?$/, 'a colour is written #rrggbb, or #rrggbbaa where it is let through');

/** A colour of the drawing's palette, by its id: where it is changed there, it changes wherever it is used. */
export const swatchPaintSchema = z.strictObject({ swatch: idSchema });

/** A gradient of the drawing's, by its id. */
export const gradientPaintSchema = z.strictObject({ gradient: idSchema });

/**
 * A darker or lighter shade of another paint: `by` 1 is black, -1 white, 0 the paint itself. `of` is a colour, a swatch, or
 * `beside`: the fill that the line encloses or borders, looked up whenever it is painted. Where there is none, it is `else`.
 */
export const shadeSchema = z.strictObject({
  of: z.union([solidSchema, swatchPaintSchema, z.literal('beside')]),
  by: z.number().min(-1).max(1),
  else: solidSchema,
});

/** What a stroke or a fill is painted with. A solid paint is written as its colour. */
export const paintSchema = z.union([solidSchema, swatchPaintSchema, gradientPaintSchema, shadeSchema]);

/** A named colour of the palette, perhaps in a group of such by its name. */
export const swatchSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  colour: colourSchema,
  group: nameSchema.optional(),
});

/** A colour at a share of a gradient's way. */
export const stopSchema = z.strictObject({ at: share, colour: z.union([solidSchema, swatchPaintSchema]) });

/**
 * Colours that go over into each other: along the way `from` to `to`, or in rings about `from`, the last through `to`. In
 * `page` space both are places of the page; in `item` space shares of the box around the item that is painted with it.
 */
export const gradientSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['linear', 'radial']),
  space: z.enum(['page', 'item']),
  from: offsetSchema,
  to: offsetSchema,
  /** The end of the rings' other half axis; left out: as long as the first, at a right angle to it. */
  across: offsetSchema.optional(),
  /** Where the rings begin, when not in their middle. */
  focus: offsetSchema.optional(),
  stops: z.array(stopSchema).min(1).max(100),
});

/** How colours are mixed with those below (Compositing and Blending 1). */
export const blends = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;

/** How an item, or all of a sheet or group together, is laid over what lies below. Left out: opaque, and laid over plainly. */
export const layingShape = { opacity: share.optional(), blend: z.enum(blends).optional() };
export const palettesShape = {
  palette: z.array(swatchSchema).max(2_000).optional(),
  gradients: z.array(gradientSchema).max(10_000).optional(),
};

export type Blend = (typeof blends)[number];
export type Laying = { readonly opacity?: number; readonly blend?: Blend };
export type Paint =
  string | Readonly<z.infer<typeof swatchPaintSchema>> | Readonly<z.infer<typeof gradientPaintSchema>> | Shade;
export type Shade = Readonly<z.infer<typeof shadeSchema>>;
export type Swatch = Readonly<z.infer<typeof swatchSchema>>;
export type Gradient = Readonly<Omit<z.infer<typeof gradientSchema>, 'stops'>> & {
  readonly stops: readonly Readonly<z.infer<typeof stopSchema>>[];
};

/** What a paint begins with: a colour, or one of the palette's. */
export type BasePaint = string | Readonly<z.infer<typeof swatchPaintSchema>>;

export const isSwatch = (p: Paint | null): p is Readonly<z.infer<typeof swatchPaintSchema>> =>
  typeof p === 'object' && p !== null && 'swatch' in p;
export const isShade = (p: Paint | null): p is Shade => typeof p === 'object' && p !== null && 'of' in p;
/** Whether a paint is a shade of whatever fill lies beside its line. */
export const followsFill = (p: Paint | null): p is Shade => isShade(p) && p.of === 'beside';
/** Two paints are the same, whatever object they are. */
export const isSamePaint = (a: Paint | null, b: Paint | null): boolean =>
  a === b || (typeof a === 'object' && typeof b === 'object' && JSON.stringify(a) === JSON.stringify(b));

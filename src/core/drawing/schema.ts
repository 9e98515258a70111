import { z } from 'zod';
import { itemsSchema, placedShape, type Item, type Placed } from './item';
import { firstStyle, profileSchema, styleSchema, type KeptProfile, type Style } from './line';
import { blends, layingShape, palettesShape, type Gradient, type Swatch } from './paint';
import { colourSchema, finite, idSchema, share } from './values';

export { colourSchema, idSchema, offsetSchema } from './values';
export { blends, type Blend, type Gradient, type Paint, type Swatch } from './paint';
export * from './line';
export type { Flat, Group, Item, Picture } from './item';

/**
 * What a drawing is. Everything is measured in page units (CSS px, 96 to the inch; y down). A drawing is a value: it
 * is never changed in place, and whatever an edit leaves alone is shared between before and after.
 */
export const SCHEMA_VERSION = 3;

/** Holds sheets, which lie next to each other in the stack. */
export const folderSchema = z.strictObject({ id: idSchema, name: z.string().max(200), open: z.boolean() });

export const sheetStates = ['to do', 'working', 'traced'] as const;
const boxSchema = z.strictObject({ minX: finite, minY: finite, maxX: finite, maxY: finite });

/**
 * One layer of the stack. Its items are in painting order; `style` is what its next line takes. `state` is how far its
 * part of the picture is traced, `part` where on the page that part lies.
 */
export const sheetSchema = z.strictObject({
  id: idSchema,
  name: z.string().max(200),
  tag: colourSchema,
  visible: z.boolean(),
  locked: z.boolean(),
  folder: idSchema.nullable(),
  state: z.enum(sheetStates),
  part: boxSchema.nullable(),
  style: styleSchema,
  items: itemsSchema,
  opacity: layingShape.opacity,
});

/**
 * A placed picture. `at` is the upper left corner on the page that it has before it is turned, `width` and `height` its
 * size there, `turn` how far it is turned clockwise about its middle, in degrees. `dpi` is what the file says, if it does.
 * `beside`: it lies beside the page to be looked at, not under the work.
 */
export const referenceSchema = z.strictObject({
  ...placedShape,
  dpi: z.number().positive().max(20_000).nullable(),
  beside: z.boolean(),
  dim: share,
  blend: z.enum(blends),
  tint: colourSchema.nullable(),
  visible: z.boolean(),
  locked: z.boolean(),
  /** What its lines are measured against: a sketch's ink, or the edges in a photo. */
  target: z.enum(['ink', 'edge']),
});

export const units = ['px', 'mm', 'cm', 'in', 'pt'] as const;

/** A straight line to lay things along: upright at an `x`, or level at a `y`. Page units. */
export const guideSchema = z.strictObject({ axis: z.enum(['x', 'y']), at: finite });

/** The page. `width` and `height` are in page units; `unit` is how they are shown; `ground` null is see-through. */
export const pageSchema = z.strictObject({
  width: z.number().positive().max(100_000),
  height: z.number().positive().max(100_000),
  unit: z.enum(units),
  dpi: z.number().min(1).max(2_400),
  ground: colourSchema.nullable(),
  guides: z.array(guideSchema).max(200),
  grid: z.strictObject({ spacing: z.number().min(0.5).max(10_000), visible: z.boolean(), snap: z.boolean() }),
});

/** Items by their ids, in the order in which they are drawn in a replay. One that is gone does not count. */
export const orderSchema = z.array(idSchema).max(200_000);

/**
 * `sheets` and `references` are listed from the bottom of the stack to its top. `dim` dims all references further.
 * `waved` holds the keys of notes that were waved through, `profiles` the width profiles kept by name; `palette` and
 * `gradients` are what paints speak of; `order` is the order in which lines appear, where that is not as they lie.
 */
export const drawingSchema = z.strictObject({
  schema: z.literal(SCHEMA_VERSION),
  page: pageSchema,
  dim: share,
  folders: z.array(folderSchema).max(500),
  sheets: z.array(sheetSchema).max(2_000),
  references: z.array(referenceSchema).max(200),
  waved: z.array(z.string().max(200)).max(20_000),
  profiles: z.array(profileSchema).max(200).optional(),
  ...palettesShape,
  order: orderSchema.optional(),
});

export type Sheet = Readonly<Omit<z.infer<typeof sheetSchema>, 'items' | 'style'>> & {
  readonly items: readonly Item[];
  readonly style: Style;
};
export type Reference = Placed & Readonly<Omit<z.infer<typeof referenceSchema>, keyof Placed>>;
export type Folder = Readonly<z.infer<typeof folderSchema>>;
export type SheetState = (typeof sheetStates)[number];
export type Guide = Readonly<z.infer<typeof guideSchema>>;
export type Unit = (typeof units)[number];
export type Page = Readonly<Omit<z.infer<typeof pageSchema>, 'guides'>> & { readonly guides: readonly Guide[] };
export type Drawing = {
  readonly schema: typeof SCHEMA_VERSION;
  readonly page: Page;
  readonly dim: number;
  readonly folders: readonly Folder[];
  readonly sheets: readonly Sheet[];
  readonly references: readonly Reference[];
  readonly waved: readonly string[];
  readonly profiles?: readonly KeptProfile[];
  readonly palette?: readonly Swatch[];
  readonly gradients?: readonly Gradient[];
  readonly order?: readonly string[];
};

/** A page without guides; its grid is ready, but not shown. */
export const plainPage = (page: Pick<Page, 'width' | 'height' | 'unit' | 'dpi' | 'ground'>): Page => ({
  ...page,
  guides: [],
  grid: { spacing: 96 / 25.4 / 0.2, visible: false, snap: false },
});

/** A sheet with nothing on it yet, open to the hand. */
export const freshSheet = (id: string, name: string, tag: string, style: Style = firstStyle): Sheet => ({
  id,
  name,
  tag,
  visible: true,
  locked: false,
  folder: null,
  state: 'to do',
  part: null,
  style,
  items: [],
});

/** A drawing with a page and one empty sheet. */
export const emptyDrawing = (page: Page, sheet: { id: string; name: string; tag: string }): Drawing => ({
  schema: SCHEMA_VERSION,
  page,
  dim: 0,
  folders: [],
  sheets: [freshSheet(sheet.id, sheet.name, sheet.tag)],
  references: [],
  waved: [],
});

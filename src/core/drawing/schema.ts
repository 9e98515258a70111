import { z } from 'zod';

/**
 * What a drawing is. Everything is measured in page units (CSS px, 96 to the inch; y down). A drawing is a value: it
 * is never changed in place, and whatever an edit leaves alone is shared between before and after.
 */
export const SCHEMA_VERSION = 1;

const finite = z.number().min(-1e7).max(1e7);
const share = z.number().min(0).max(1);
export const idSchema = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);
export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written #rrggbb');

const offsetSchema = z.strictObject({ x: finite, y: finite });

export const nodeKinds = ['corner', 'smooth', 'even', 'flowing'] as const;

/** A place a line runs through. Handles are offsets from the point; null means there is none. */
export const nodeSchema = z.strictObject({
  point: offsetSchema,
  in: offsetSchema.nullable(),
  out: offsetSchema.nullable(),
  kind: z.enum(nodeKinds),
});

/** A run of nodes. A closed run returns from its last node to its first. */
export const runSchema = z.strictObject({ closed: z.boolean(), nodes: z.array(nodeSchema).min(1).max(20_000) });

export const styleSchema = z.strictObject({
  colour: colourSchema,
  width: z.number().min(0).max(10_000),
  cap: z.enum(['butt', 'round', 'square']),
  join: z.enum(['miter', 'round', 'bevel']),
  fill: colourSchema.nullable(),
});

/** One path: a run of nodes, or several that make one shape with holes. */
export const lineSchema = z.strictObject({
  id: idSchema,
  runs: z.array(runSchema).min(1).max(2_000),
  style: styleSchema,
});

/** One layer of the stack. Its lines are in painting order; `style` is what its next line takes. */
export const sheetSchema = z.strictObject({
  id: idSchema,
  name: z.string().max(200),
  tag: colourSchema,
  visible: z.boolean(),
  locked: z.boolean(),
  style: styleSchema,
  lines: z.array(lineSchema).max(100_000),
});

/** A placed picture. `at` is its upper left corner on the page, `width` and `height` its size there. */
export const referenceSchema = z.strictObject({
  id: idSchema,
  name: z.string().max(200),
  picture: z.string().regex(/^[0-9a-f]{64}$/),
  pixelWidth: z.number().int().positive(),
  pixelHeight: z.number().int().positive(),
  at: offsetSchema,
  width: z.number().positive().max(1e6),
  height: z.number().positive().max(1e6),
  dim: share,
  visible: z.boolean(),
  locked: z.boolean(),
});

export const units = ['px', 'mm', 'cm', 'in', 'pt'] as const;

/** The page. `width` and `height` are in page units; `unit` is how they are shown; `ground` null is see-through. */
export const pageSchema = z.strictObject({
  width: z.number().positive().max(100_000),
  height: z.number().positive().max(100_000),
  unit: z.enum(units),
  dpi: z.number().min(1).max(2_400),
  ground: colourSchema.nullable(),
});

/** `sheets` and `references` are listed from the bottom of the stack to its top. */
export const drawingSchema = z.strictObject({
  schema: z.literal(SCHEMA_VERSION),
  page: pageSchema,
  sheets: z.array(sheetSchema).max(2_000),
  references: z.array(referenceSchema).max(200),
});

export type NodeKind = (typeof nodeKinds)[number];
export type Node = Readonly<z.infer<typeof nodeSchema>>;
export type Run = { readonly closed: boolean; readonly nodes: readonly Node[] };
export type Style = Readonly<z.infer<typeof styleSchema>>;
export type Line = { readonly id: string; readonly runs: readonly Run[]; readonly style: Style };
export type Sheet = Readonly<Omit<z.infer<typeof sheetSchema>, 'lines'>> & { readonly lines: readonly Line[] };
export type Reference = Readonly<z.infer<typeof referenceSchema>>;
export type Unit = (typeof units)[number];
export type Page = Readonly<z.infer<typeof pageSchema>>;
export type Drawing = {
  readonly schema: typeof SCHEMA_VERSION;
  readonly page: Page;
  readonly sheets: readonly Sheet[];
  readonly references: readonly Reference[];
};

/** The style of the first line of a fresh sheet: a dark, round line of 2 pt and no fill. */
export const firstStyle: Style = { colour: '#27241d', width: 2.6667, cap: 'round', join: 'round', fill: null };

/** A drawing with a page and one empty sheet. */
export function emptyDrawing(page: Page, sheet: { id: string; name: string; tag: string }): Drawing {
  return {
    schema: SCHEMA_VERSION,
    page,
    sheets: [{ ...sheet, visible: true, locked: false, style: firstStyle, lines: [] }],
    references: [],
  };
}

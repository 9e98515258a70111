import { z } from 'zod';
import { nibSchema } from '../ink/nibs/schema';
import { correctionSchema, type Correction } from './correction';

/**
 * What a drawing is. Everything is measured in page units (CSS px, 96 to the inch; y down). A drawing is a value: it
 * is never changed in place, and whatever an edit leaves alone is shared between before and after.
 */
export const SCHEMA_VERSION = 2;

const finite = z.number().min(-1e7).max(1e7);
const share = z.number().min(0).max(1);
export const idSchema = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);
export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written #rrggbb');

export const offsetSchema = z.strictObject({ x: finite, y: finite });

export const nodeKinds = ['corner', 'smooth', 'even', 'flowing'] as const;

/**
 * A place a line runs through. Handles are offsets from the point; null means there is none. A corner without handles
 * can be rounded off by an arc of `radius` page units: the node stays, the line is drawn round it.
 */
export const nodeSchema = z.strictObject({
  point: offsetSchema,
  in: offsetSchema.nullable(),
  out: offsetSchema.nullable(),
  kind: z.enum(nodeKinds),
  radius: z.number().min(0).max(100_000).optional(),
});

/** A run of nodes. A closed run returns from its last node to its first. */
export const runSchema = z.strictObject({ closed: z.boolean(), nodes: z.array(nodeSchema).min(1).max(20_000) });

export const caps = ['round', 'butt', 'square'] as const;
export const joins = ['round', 'miter', 'bevel'] as const;

/** Strokes and gaps in turns, in page units, and how far into them a stroke begins. */
export const dashSchema = z.strictObject({
  lengths: z.array(z.number().min(0).max(10_000)).min(1).max(12),
  offset: finite,
});

/**
 * How a stroke is inked. What is left out is plain: a miter limit of 4, no dashes, the stroke over its fill, a round nib,
 * a steady hand. `wobble` is how far the hand strays, `overrun` how far ends run on, in page units; `seed` makes both, and
 * a dry nib's breaks, differ from line to line. With a `tint` the colour follows the fill that the line encloses or borders, so much darker.
 */
export const styleSchema = z.strictObject({
  colour: colourSchema,
  width: z.number().min(0).max(10_000),
  cap: z.enum(['butt', 'round', 'square']),
  join: z.enum(['miter', 'round', 'bevel']),
  fill: colourSchema.nullable(),
  miterLimit: z.number().min(1).max(100).optional(),
  dash: dashSchema.optional(),
  strokeBelow: z.boolean().optional(),
  nib: nibSchema.optional(),
  wobble: z.number().min(0).max(1_000).optional(),
  overrun: z.number().min(0).max(1_000).optional(),
  seed: z.number().int().min(0).max(1_000_000).optional(),
  tint: share.optional(),
});

/**
 * How far a stroke's body reaches to the left and right of its line, in page units, at a share of its length. Widths go
 * over from mark to mark smoothly; through a `sharp` one straight on both sides, with a kink.
 */
export const markSchema = z.strictObject({
  at: share,
  left: z.number().min(0).max(10_000),
  right: z.number().min(0).max(10_000),
  sharp: z.boolean().optional(),
});

/** A width profile kept by name; its marks are shares of half a stroke's width. */
export const profileSchema = z.strictObject({
  id: idSchema,
  name: z.string().min(1).max(80),
  marks: z.array(markSchema).min(1).max(200),
});

/**
 * One path: a run of nodes, or several that make one shape with holes. `marks` (rising, of its first run) give it a
 * living width in place of its style's; `groups` are the groups that it is in, the outermost first.
 */
export const lineSchema = z.strictObject({
  id: idSchema,
  runs: z.array(runSchema).min(1).max(2_000),
  style: styleSchema,
  marks: z.array(markSchema).max(2_000).optional(),
  groups: z.array(idSchema).max(20).optional(),
});

/** Holds sheets, which lie next to each other in the stack. */
export const folderSchema = z.strictObject({ id: idSchema, name: z.string().max(200), open: z.boolean() });

export const sheetStates = ['to do', 'working', 'traced'] as const;
const boxSchema = z.strictObject({ minX: finite, minY: finite, maxX: finite, maxY: finite });

/**
 * One layer of the stack. Its lines are in painting order; `style` is what its next line takes. `state` is how far its
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
  lines: z.array(lineSchema).max(100_000),
});

export const blends = ['normal', 'multiply', 'screen'] as const;

/**
 * A placed picture. `at` is the upper left corner on the page that it has before it is turned, `width` and `height` its
 * size there, `turn` how far it is turned clockwise about its middle, in degrees. `dpi` is what the file says, if it does.
 * `beside`: it lies beside the page to be looked at, not under the work.
 */
export const referenceSchema = z.strictObject({
  id: idSchema,
  name: z.string().max(200),
  picture: z.string().regex(/^[0-9a-f]{64}$/),
  pixelWidth: z.number().int().positive(),
  pixelHeight: z.number().int().positive(),
  dpi: z.number().positive().max(20_000).nullable(),
  corrections: z.array(correctionSchema).max(20),
  at: offsetSchema,
  width: z.number().positive().max(1e6),
  height: z.number().positive().max(1e6),
  turn: z.number().min(-360).max(360),
  flipX: z.boolean(),
  flipY: z.boolean(),
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

/**
 * `sheets` and `references` are listed from the bottom of the stack to its top. `dim` dims all references further.
 * `waved` holds the keys of notes that were waved through, `profiles` the width profiles kept by name.
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
});

export type NodeKind = (typeof nodeKinds)[number];
export type Node = Readonly<z.infer<typeof nodeSchema>>;
export type Run = { readonly closed: boolean; readonly nodes: readonly Node[] };
export type Style = Readonly<z.infer<typeof styleSchema>>;
export type Mark = Readonly<z.infer<typeof markSchema>>;
export type KeptProfile = { readonly id: string; readonly name: string; readonly marks: readonly Mark[] };
export type Dash = Readonly<z.infer<typeof dashSchema>>;
export type Line = {
  readonly id: string;
  readonly runs: readonly Run[];
  readonly style: Style;
  readonly marks?: readonly Mark[];
  readonly groups?: readonly string[];
};
export type Sheet = Readonly<Omit<z.infer<typeof sheetSchema>, 'lines'>> & { readonly lines: readonly Line[] };
export type Reference = Readonly<Omit<z.infer<typeof referenceSchema>, 'corrections'>> & {
  readonly corrections: readonly Correction[];
};
export type Blend = (typeof blends)[number];
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
};

/** The style of the first line of a fresh sheet: a dark, round line of 2 pt and no fill. */
export const firstStyle: Style = { colour: '#27241d', width: 2.6667, cap: 'round', join: 'round', fill: null };

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
  lines: [],
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

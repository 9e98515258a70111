import { z } from 'zod';
import { nibSchema } from './nib';
import { layingShape, paintSchema, type Laying, type Paint } from './paint';
import { nodesSchema, type nodeKinds, type nodeSchema } from './nodes';
import { finite, idSchema, nameSchema, share } from './values';

export { nodeKinds, nodeSchema } from './nodes';

/** A run of nodes. A closed run returns from its last node to its first. */
export const runSchema = z.strictObject({ closed: z.boolean(), nodes: nodesSchema(1, 20_000) });

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
 * a dry nib's breaks, differ from line to line.
 */
export const styleSchema = z.strictObject({
  stroke: paintSchema,
  width: z.number().min(0).max(10_000),
  cap: z.enum(['butt', 'round', 'square']),
  join: z.enum(['miter', 'round', 'bevel']),
  fill: paintSchema.nullable(),
  miterLimit: z.number().min(1).max(100).optional(),
  dash: dashSchema.optional(),
  strokeBelow: z.boolean().optional(),
  /** Left out: nonzero. */
  fillRule: z.literal('evenodd').optional(),
  nib: nibSchema.optional(),
  wobble: z.number().min(0).max(1_000).optional(),
  overrun: z.number().min(0).max(1_000).optional(),
  seed: z.number().int().min(0).max(1_000_000).optional(),
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
 * living width in place of its style's. Of a sheet's items it is the plain one: it says no kind.
 */
export const lineSchema = z.strictObject({
  kind: z.undefined().optional(),
  id: idSchema,
  runs: z.array(runSchema).min(1).max(2_000),
  style: styleSchema,
  marks: z.array(markSchema).max(2_000).optional(),
  ...layingShape,
  name: nameSchema.optional(),
});

export type NodeKind = (typeof nodeKinds)[number];
export type Node = Readonly<z.infer<typeof nodeSchema>>;
export type Run = { readonly closed: boolean; readonly nodes: readonly Node[] };
export type Style = Readonly<Omit<z.infer<typeof styleSchema>, 'stroke' | 'fill'>> & {
  readonly stroke: Paint;
  readonly fill: Paint | null;
};
export type Mark = Readonly<z.infer<typeof markSchema>>;
export type KeptProfile = { readonly id: string; readonly name: string; readonly marks: readonly Mark[] };
export type Dash = Readonly<z.infer<typeof dashSchema>>;
export type Line = Laying & {
  readonly kind?: undefined;
  readonly id: string;
  readonly runs: readonly Run[];
  readonly style: Style;
  readonly name?: string;
  readonly marks?: readonly Mark[];
};

/** The style of the first line of a fresh sheet: a dark, round line of 2 pt and no fill. */
export const firstStyle: Style = { stroke: '#27241d', width: 2.6667, cap: 'round', join: 'round', fill: null };

import { z } from 'zod';
import type { DeepReadonly } from '../readonly';
import {
  folderSchema,
  idSchema,
  lineSchema,
  pageSchema,
  profileSchema,
  referenceSchema,
  sheetSchema,
} from '../drawing/schema';

/**
 * A change is what an edit did to a drawing: a few small steps, each of which knows what was there before, so that it
 * can be taken back. Changes are the only way a drawing becomes another; undo, the journal and versions are made of them.
 */

const index = z.number().int().min(0);
const lineSides = lineSchema.omit({ id: true }).partial();
const sheetSides = sheetSchema.omit({ id: true, lines: true }).partial();
const referenceSides = referenceSchema.omit({ id: true }).partial();
const pageSides = pageSchema.partial();
const drawingSides = z
  .strictObject({
    dim: z.number().min(0).max(1),
    folders: z.array(folderSchema).max(500),
    waved: z.array(z.string().max(200)).max(20_000),
    profiles: z.array(profileSchema).max(200),
  })
  .partial();

export const stepSchema = z.discriminatedUnion('step', [
  z.strictObject({ step: z.literal('insertLine'), sheet: idSchema, index, line: lineSchema }),
  z.strictObject({ step: z.literal('removeLine'), sheet: idSchema, index, line: lineSchema }),
  z.strictObject({ step: z.literal('setLine'), sheet: idSchema, id: idSchema, before: lineSides, after: lineSides }),
  z.strictObject({ step: z.literal('insertSheet'), index, sheet: sheetSchema }),
  z.strictObject({ step: z.literal('removeSheet'), index, sheet: sheetSchema }),
  z.strictObject({ step: z.literal('setSheet'), id: idSchema, before: sheetSides, after: sheetSides }),
  z.strictObject({ step: z.literal('moveSheet'), from: index, to: index }),
  z.strictObject({ step: z.literal('insertReference'), index, reference: referenceSchema }),
  z.strictObject({ step: z.literal('removeReference'), index, reference: referenceSchema }),
  z.strictObject({ step: z.literal('setReference'), id: idSchema, before: referenceSides, after: referenceSides }),
  z.strictObject({ step: z.literal('moveReference'), from: index, to: index }),
  z.strictObject({ step: z.literal('setDrawing'), before: drawingSides, after: drawingSides }),
  z.strictObject({ step: z.literal('setPage'), before: pageSides, after: pageSides }),
]);

/** `id` tells a change that arrives twice from a new one; `label` is what a person reads ("Bend segment"). */
export const changeSchema = z.strictObject({
  id: idSchema,
  label: z.string().min(1).max(200),
  steps: z.array(stepSchema).min(1).max(200_000),
});

export type Step = DeepReadonly<z.infer<typeof stepSchema>>;
export type Change = { readonly id: string; readonly label: string; readonly steps: readonly Step[] };

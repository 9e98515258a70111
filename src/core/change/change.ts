import { z } from 'zod';
import type { DeepReadonly } from '../readonly';
import { idSchema } from '../drawing/schema';
import { quickly } from '../drawing/values';
import { definitions } from './steps';
import { isPlainPut } from './steps/plainPut';

/**
 * A change is what an edit did to a drawing: a few small steps, each of which knows what was there before, so that it
 * can be taken back. Changes are the only way a drawing becomes another; undo, the journal and versions are made of them.
 */

const anyStep = z.discriminatedUnion('step', [
  definitions.insertItem.schema,
  definitions.removeItem.schema,
  definitions.moveItems.schema,
  definitions.setLine.schema,
  definitions.setNodes.schema,
  definitions.setGroup.schema,
  definitions.setPicture.schema,
  definitions.setFlat.schema,
  definitions.translate.schema,
  definitions.insertSheet.schema,
  definitions.removeSheet.schema,
  definitions.setSheet.schema,
  definitions.moveSheet.schema,
  definitions.insertReference.schema,
  definitions.removeReference.schema,
  definitions.setReference.schema,
  definitions.moveReference.schema,
  definitions.setDrawing.schema,
  definitions.setPage.schema,
  definitions.flat.schema,
]);

export const stepSchema = quickly(isPlainPut, anyStep);

/**
 * `id` tells a change that arrives twice from a new one; `label` is what a person reads ("Bend segment"). `time` is when it
 * was made, by the clock where the hand is, ms since 1970. One that takes another back, or makes it again, says which.
 */
export const changeSchema = z.strictObject({
  id: idSchema,
  label: z.string().min(1).max(200),
  steps: z.array(stepSchema).min(1).max(200_000),
  time: z.number().int().min(0).optional(),
  undoes: idSchema.optional(),
  redoes: idSchema.optional(),
});

export type Step = DeepReadonly<z.infer<typeof stepSchema>>;
export type Change = {
  readonly id: string;
  readonly label: string;
  readonly steps: readonly Step[];
  readonly time?: number;
  readonly undoes?: string;
  readonly redoes?: string;
};

import { z } from 'zod';
import { applyChange, type Change, type Drawing } from '@/core';
import { upgradedChange } from '@/core/change/upgradeChange';
import { idSchema } from '@/core/drawing/schema';
import { packed } from '@/core/formats/packed';
import { ApiError, ask, keepWholeAside } from '@/bench/state/api';

/** Changes that a bench saved as a file, for the server would not have them. */
const fileSchema = z.object({
  drawing: idSchema,
  title: z.string(),
  base: z.number().int().min(0),
  schema: z.number().int().min(1).default(3),
  changes: z.array(z.unknown()).min(1),
});

export const isChangesFile = (name: string): boolean => /\(changes\).*\.json$/i.test(name);

/**
 * Reads such a file: a drawing as it was when they were made (or, where that is gone, as it is), with those of them that fit.
 * It becomes one of its own. @throws Error in words where it is no such file, or its drawing is not here.
 */
export async function openChangesFile(file: File): Promise<{ id: string; fitted: number; of: number }> {
  const { drawing: id, base, schema, changes } = parsed(await file.text());
  let drawing = await stateFor(id, base);
  let fitted = 0;
  for (const raw of changes) {
    const after = fitting(drawing, raw, schema);
    if (after) [drawing, fitted] = [after, fitted + 1];
  }
  if (fitted === 0)
    throw new Error('None of the changes in that file fits its drawing any more. Nothing was brought in.');
  const { id: made } = await keepWholeAside(id, packed(drawing));
  return { id: made, fitted, of: changes.length };
}

function parsed(text: string): z.infer<typeof fileSchema> {
  try {
    return fileSchema.parse(JSON.parse(text));
  } catch {
    throw new Error('That file holds no changes that can be read. Nothing was brought in.');
  }
}

async function stateFor(id: string, base: number): Promise<Drawing> {
  const stateAt = (path: string): Promise<Drawing> => ask<{ drawing: Drawing }>(path).then((s) => s.drawing);
  try {
    return await stateAt(`/api/drawings/${id}/revisions/${base}`);
  } catch (error) {
    if (!(error instanceof ApiError) || error.status === 0) throw error;
    return stateAt(`/api/drawings/${id}`).catch(() => {
      throw new Error('The drawing that these changes are of is not here. Nothing was brought in.');
    });
  }
}

/** A drawing after a change of a file; null where it does not fit. */
function fitting(drawing: Drawing, raw: unknown, schema: number): Drawing | null {
  try {
    return applyChange(drawing, upgradedChange(raw as Change, schema));
  } catch {
    return null;
  }
}

import { z } from 'zod';
import { palettesShape } from '../../drawing/paint';
import { folderSchema, orderSchema, profileSchema } from '../../drawing/schema';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

const sides = z
  .strictObject({
    dim: z.number().min(0).max(1),
    folders: z.array(folderSchema).max(500),
    waved: z.array(z.string().max(200)).max(20_000),
    profiles: z.array(profileSchema).max(200),
    palette: palettesShape.palette.unwrap(),
    gradients: palettesShape.gradients.unwrap(),
    order: orderSchema,
  })
  .partial();

/** What belongs to a drawing as a whole, set anew. */
export const setDrawing = definition({
  schema: z.strictObject({ step: z.literal('setDrawing'), before: sides, after: sides }),
  apply: (draft, step) =>
    draft.set(withSides(draft.drawing, step, 'drawing', { profiles: [], palette: [], gradients: [], order: [] })),
  inverse: turnedAbout,
  touches: () => null,
});

import { z } from 'zod';
import { idSchema, sheetSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

const sides = sheetSchema.omit({ id: true, items: true }).partial();

/** Some of a sheet set anew, but not its items. */
export const setSheet = definition({
  schema: z.strictObject({ step: z.literal('setSheet'), id: idSchema, before: sides, after: sides }),
  apply(draft, step) {
    draft.setSheets((sheets) => {
      const i = sheets.findIndex((s) => s.id === step.id);
      if (i < 0) throw new ChangeError(`sheet ${step.id} is not there`);
      return sheets.with(i, withSides(sheets[i], step, 'sheet', { opacity: 1 }));
    });
  },
  inverse: turnedAbout,
  touches: () => null,
});

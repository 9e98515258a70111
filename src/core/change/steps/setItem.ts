import { z } from 'zod';
import { plainOf } from '../../drawing/plain';
import { idSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { turnedAbout, withSides, type Sides } from './sides';

/** A step that sets some of an item of one kind anew, whatever list it lies in: `sides` is what can be set of it. */
export const settingItem = <N extends string, S extends z.ZodType<object>>(
  step: N,
  kind: 'group' | 'picture' | 'flat',
  sides: S,
) =>
  definition({
    schema: z.strictObject({ step: z.literal(step), sheet: idSchema, id: idSchema, before: sides, after: sides }),
    apply(draft, set) {
      const { sheet, id } = set as { sheet: string; id: string };
      const found = draft.findIn(sheet, id);
      if (found?.item.kind !== kind) throw new ChangeError(`${kind} ${id} is not on sheet ${sheet}`);
      draft.replace(found.place, withSides(found.item, set as unknown as Sides, kind, plainOf[kind]));
    },
    inverse: (set) => turnedAbout(set as unknown as Sides & { step: string }),
    touches: (set) => [(set as { id: string }).id],
  });

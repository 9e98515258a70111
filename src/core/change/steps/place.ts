import { z } from 'zod';
import { idSchema } from '../../drawing/schema';

/** A place in a list. */
export const index = z.number().int().min(0);

/** Whose list of items: a sheet's, or that of a group on it. */
export const ownerShape = { sheet: idSchema, group: idSchema.optional() };

/** A place in a list of items. */
export const place = z.strictObject({ ...ownerShape, index });

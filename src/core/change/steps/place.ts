import { z } from 'zod';

/** A place in a list. */
export const index = z.number().int().min(0);

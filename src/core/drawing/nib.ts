import { z } from 'zod';

const share = z.number().min(0).max(1);

/**
 * The nibs and what can be set of each. Angles are in degrees, clockwise from the page's x axis; lengths of tapers are
 * shares of the line's length.
 */
export const nibSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('round') }),
  z.strictObject({
    kind: z.literal('broad'),
    angle: z.number().min(-180).max(180),
    flatness: z.number().min(0.02).max(1),
  }),
  z.strictObject({ kind: z.literal('tapered'), start: share, end: share }),
  z.strictObject({ kind: z.literal('brush'), belly: share, tail: share }),
  z.strictObject({ kind: z.literal('dry'), dryness: share }),
]);

export type Nib = Readonly<z.infer<typeof nibSchema>>;
export type NibKind = Nib['kind'];
export type NibOf<K extends NibKind> = Extract<Nib, { kind: K }>;

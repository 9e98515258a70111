import { z } from 'zod';

/** What drawings are made of at the bottom: figures, names and colours. Lengths are page units (CSS px, 96 to the inch). */
export const MOST_PLACE = 1e7;
export const finite = z.number().min(-MOST_PLACE).max(MOST_PLACE);
export const share = z.number().min(0).max(1);
const ID = /^[A-Za-z0-9_-]{1,60}$/;
export const idSchema = z.string().regex(ID);
export const isId = (value: unknown): boolean => typeof value === 'string' && ID.test(value);

/** Whether a value is an object of no other sides than these. */
export function hasOnly(value: unknown, sides: ReadonlySet<string>): value is Record<string, unknown> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  for (const side in value) if (!sides.has(side)) return false;
  return true;
}

/** What there is very much of: what is `sound` is seen at once, what is not is gone through by a schema for words. */
export const quickly = <T>(sound: (value: unknown) => boolean, schema: z.ZodType<T>) =>
  z.custom<T>().superRefine((value, context) => {
    if (sound(value)) return;
    for (const issue of schema.safeParse(value).error?.issues ?? [])
      context.addIssue({ ...issue, input: issue.input } as never);
  });

/** Ids of items, from one to as many as are allowed. */
export const idsSchema = (most: number) =>
  quickly(
    (v) => Array.isArray(v) && v.length >= 1 && v.length <= most && v.every(isId),
    z.array(idSchema).min(1).max(most),
  );
export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written #rrggbb');
export const offsetSchema = z.strictObject({ x: finite, y: finite });
export const nameSchema = z.string().max(200);
export const pictureHash = z.string().regex(/^[0-9a-f]{64}$/);

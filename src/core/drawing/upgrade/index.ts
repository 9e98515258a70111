import { drawingSchema, SCHEMA_VERSION, type Drawing } from '../schema';
import { fromOne } from './fromOne';
import { fromTwo } from './fromTwo';
import { isRaw, type Raw, type Upgrade } from './upgrade';

/** Oldest first; each leads to the number of the next. */
const upgrades: readonly Upgrade[] = [fromOne, fromTwo];

const after = (number: number): readonly Upgrade[] => upgrades.filter((u) => u.from >= number);

/**
 * A drawing as any earlier program wrote it, as it is written now.
 * @throws RangeError says what is wrong with it, or that a later program wrote it.
 */
export function upgradeDrawing(raw: unknown): Drawing {
  const parsed = drawingSchema.safeParse(upgradedDrawing(raw));
  if (parsed.success) return parsed.data as Drawing;
  const [{ path, message }] = parsed.error.issues;
  throw new RangeError(`the drawing is not sound: ${path.join('.') || 'it'}: ${message}`);
}

/** The same for one that our own store kept, and that was sound when it was: it is not gone through once more. */
export function upgradedDrawing(raw: unknown): Drawing {
  if (!isRaw(raw)) throw new RangeError('this is no drawing');
  const list = after(numberOf(raw.schema));
  try {
    return list.reduce((d, u) => u.drawing(d), raw) as unknown as Drawing;
  } catch (error) {
    // An upgrade takes what it is given for sound; what is not shows itself in many ways.
    throw new RangeError(`the drawing is not sound: ${(error as Error).message}`);
  }
}

/** The steps of a change that was written under a number, as they are written now; not yet known to be sound. */
export const upgradedSteps = (raw: readonly Raw[], number: number): readonly Raw[] =>
  after(numberOf(number)).reduce((s, u) => u.steps(s), raw);

/** The same for lines, or items, by themselves. */
export const upgradedItems = (raw: readonly unknown[], number: number): readonly unknown[] =>
  after(numberOf(number)).reduce((list, u) => u.items(list), raw);

function numberOf(schema: unknown): number {
  if (typeof schema !== 'number' || !Number.isInteger(schema) || schema < 1)
    throw new RangeError('the drawing does not say by which number it was written');
  if (schema > SCHEMA_VERSION)
    throw new RangeError(
      `the drawing was written by a later program (number ${schema}; this one reads ${SCHEMA_VERSION})`,
    );
  return schema;
}

import { isPlainLine } from '../../drawing/plainLine';
import { hasOnly, isId } from '../../drawing/values';

const STEP = new Set(['step', 'at', 'item']);
const PLACE = new Set(['sheet', 'group', 'index']);

/**
 * Whether a value is surely a sound step that puts a plain line in, or takes it out. Changes can hold very many of them: this sees
 * it at once. What else may be sound is for the schema to say.
 */
export const isPlainPut = (value: unknown): boolean =>
  hasOnly(value, STEP) &&
  (value.step === 'insertItem' || value.step === 'removeItem') &&
  isPlace(value.at) &&
  isPlainLine(value.item);

const isPlace = (value: unknown): boolean =>
  hasOnly(value, PLACE) &&
  isId(value.sheet) &&
  (value.group === undefined || isId(value.group)) &&
  Number.isSafeInteger(value.index) &&
  (value.index as number) >= 0;

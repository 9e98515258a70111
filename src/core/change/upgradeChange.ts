import { upgradedSteps } from '../drawing/upgrade';
import { isRaw, type Raw } from '../drawing/upgrade/upgrade';
import type { Change } from './change';

/**
 * A change that a program kept under a number of the drawing's schema, as it is written now.
 * @throws RangeError when it is none, or when a later program wrote it.
 */
export function upgradedChange(raw: unknown, number: number): Change {
  if (!isRaw(raw) || !Array.isArray(raw.steps)) throw new RangeError('this is no change');
  if (!raw.steps.every(isRaw)) throw new RangeError('this is no step');
  const steps = upgradedSteps(raw.steps as Raw[], number);
  return { ...raw, steps } as unknown as Change;
}

import { upgradedSteps } from '../drawing/upgrade';
import { SCHEMA_VERSION } from '../drawing/schema';
import { isFlatStep } from '../drawing/upgrade/flat';
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

/** By which number a change was written that does not say so: that of today, unless it speaks of what there was before. */
export function numberOfChange(raw: unknown): number {
  const steps = isRaw(raw) && Array.isArray(raw.steps) ? raw.steps.filter(isRaw) : [];
  const isOld = steps.some(
    (s) =>
      isFlatStep(s) || [s.before, s.after].some((side) => isRaw(side) && isRaw(side.style) && 'colour' in side.style),
  );
  return isOld ? 2 : SCHEMA_VERSION;
}

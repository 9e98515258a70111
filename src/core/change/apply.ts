import type { Drawing } from '../drawing/schema';
import type { Change, Step } from './change';
import { Draft } from './draft';
import { applyStep, inverseStep, touchedBy } from './steps';

export { ChangeError } from './changeError';

/**
 * The drawing after a change.
 * @throws ChangeError when a step speaks of something that is not there, or is not as the step says it was.
 */
export function applyChange(drawing: Drawing, change: Partial<Change> & Pick<Change, 'steps'>): Drawing {
  return atOnce(inPortions(drawing, change));
}

/** Does without a pause what is made in portions. */
export function atOnce<T>(making: Iterator<undefined, T>): T {
  for (;;) {
    const { done, value } = making.next();
    if (done) return value;
  }
}

/** The same, with a pause wherever it may have taken as long as a part of a frame. */
export function* inPortions(drawing: Drawing, change: Pick<Change, 'steps'>): Generator<undefined, Drawing> {
  const draft = new Draft(drawing);
  for (const step of change.steps) {
    const pauses = applyStep(draft, step);
    if (pauses) yield* pauses;
  }
  return draft.finish();
}

/** The change that takes `change` back. It bears an id and a label of its own. */
export const inverseOf = (change: Change, id: string, label: string): Change => ({
  id,
  label,
  steps: change.steps.map((s) => inverseStep(s) as Step).reverse(),
  undoes: change.id,
});

/** The items that a change may have made, changed, moved or removed; a group stands for what is in it. */
export function touchedItems(change: Pick<Change, 'steps'>): Set<string> {
  const ids = new Set<string>();
  for (const step of change.steps) for (const id of touchedBy(step)) ids.add(id);
  return ids;
}

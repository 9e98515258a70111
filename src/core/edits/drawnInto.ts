import type { Step } from '../change/change';
import type { Edit } from '../change/edit';
import { findItem, placeOf } from '../drawing/find';
import { isLine } from '../drawing/items';
import { outlineOf } from '../drawing/outline';
import type { Drawing, Item } from '../drawing/schema';
import { roomInside } from './keepInside';

/** New lines that come to lie elsewhere than on top of their sheet. */

/** A line that is drawn on its sheet. */
const isNew = (s: Step): s is Extract<Step, { step: 'insertItem' }> =>
  s.step === 'insertItem' && isLine(s.item as Item) && s.at.group === undefined;

/** Only what draws is led elsewhere: an edit that also moves things about keeps its own places. */
const draws = ({ steps }: Edit): boolean =>
  steps.some(isNew) && steps.every((s) => isNew(s) || ['setLine', 'setNodes', 'setSheet'].includes(s.step));

/** New lines of an edit drawn behind an item: they come to lie just below it, on its sheet. */
export function drawnBehind(d: Drawing, asked: Edit, item: string): Edit {
  const place = findItem(d, item);
  if (!place || !draws(asked)) return asked;
  let next = place.index;
  const steps = asked.steps.map((s): Step => (isNew(s) ? { ...s, at: { ...placeOf(place), index: next++ } } : s));
  return { ...asked, steps };
}

/** New lines of an edit drawn into a shape: they come to lie inside of it instead of on their sheet. */
export function drawnInside(d: Drawing, asked: Edit, shape: string, freshId: () => string): Edit {
  const place = findItem(d, shape);
  if (!place || !outlineOf(place.item) || !draws(asked)) return asked;
  const { group, count, steps } = roomInside(d, place, freshId);
  let next = count;
  return {
    ...asked,
    steps: [
      ...steps,
      ...asked.steps.map((s): Step => (isNew(s) ? { ...s, at: { sheet: place.sheet.id, group, index: next++ } } : s)),
    ],
  };
}

import { applyChange } from '../change/apply';
import type { Step } from '../change/change';
import type { Edit } from '../change/edit';
import type { Drawing } from '../drawing/schema';
import { heldGroups } from '../drawing/items';
import { allFlats } from './flats';
import { following } from './followFlats';
import { followingShapes } from './followShapes';
import { refitted } from './innerOutlines';

/** Whether anything in a drawing follows something else: flats, and what is held inside of shapes. */
export const hasFollowers = (d: Drawing): boolean =>
  allFlats(d).length > 0 || d.sheets.some((s) => heldGroups(s.items).length > 0);

/** What follows from an edit: flats follow their lines, what is held inside of a shape follows that. */
export function followingSteps(
  before: Drawing,
  after: Drawing,
  freshId: () => string,
  flats?: readonly Step[],
): Step[] {
  const first = flats ?? following(before, after, freshId);
  const led = first.length > 0 ? applyChange(after, { steps: first }) : after;
  const more = [...refitted(before, after, led), ...followingShapes(led)];
  return more.length > 0 ? [...first, ...more] : (first as Step[]);
}

/** An edit with all that follows from it, in one change: one press takes all of it back. */
export function withFollowing(d: Drawing, edit: Edit, freshId: () => string): Edit {
  if (edit.steps.length === 0 || !hasFollowers(d)) return edit;
  const steps = followingSteps(d, applyChange(d, { id: 'following', ...edit }), freshId);
  return steps.length > 0 ? { ...edit, steps: [...edit.steps, ...steps] } : edit;
}

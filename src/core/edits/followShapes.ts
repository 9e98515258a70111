import { outlineOf } from '../drawing/outline';
import { dequal } from 'dequal';
import type { Step } from '../change/change';
import { findItem } from '../drawing/find';
import { lineOnGrid } from '../drawing/grid';
import { heldGroups } from '../drawing/items';
import type { Drawing, Run } from '../drawing/schema';

const same = new WeakMap<readonly Run[], readonly Run[]>();

function isSame(a: readonly Run[], b: readonly Run[]): boolean {
  if (a === b || same.get(a) === b) return true;
  if (!dequal(a, b)) return false;
  same.set(a, b);
  return true;
}

/** What is to be done so that the clips of all that is held inside of shapes are those shapes' outlines. */
export const followingShapes = (d: Drawing): Step[] =>
  d.sheets.flatMap((sheet) =>
    heldGroups(sheet.items).flatMap((group): Step[] => {
      const shape = findItem(d, group.inside!)?.item;
      const outline = shape && outlineOf(shape);
      const runs = outline && lineOnGrid({ runs: outline }).runs;
      // Where its shape has gone, or is open, it stays as it was.
      if (!runs || !group.clip || isSame(group.clip.runs, runs)) return [];
      const after = { clip: { ...group.clip, runs } };
      return [{ step: 'setGroup', sheet: sheet.id, id: group.id, before: { clip: group.clip }, after }];
    }),
  );

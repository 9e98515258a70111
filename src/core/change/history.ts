import { inverseOf } from './apply';
import type { Change } from './change';

/** What can be undone and made again, the last of each first to go; and how many undone changes lie before the stretch. */
export type Stacks = { undoable: Change[]; redoable: Change[]; undoneBefore: number };

/**
 * What a stretch of a drawing's journal leaves to be undone and made again, read in its order. `undoneLater` is how many of
 * its last changes a later stretch takes back (its `undoneBefore`).
 */
export function stacksOf(stretch: readonly Change[], undoneLater = 0): Stacks {
  const undoable: Change[] = [];
  let redoable: Change[] = [];
  let undoneBefore = 0;
  for (const change of stretch) {
    if (change.undoes !== undefined) {
      const undone = undoable.pop();
      if (!undone) undoneBefore++;
      redoable.push(undone ?? originalOf(change));
    } else {
      redoable = change.redoes === undefined ? [] : redoable.slice(0, -1);
      undoable.push(change);
    }
  }
  const taken = Math.min(undoneLater, undoable.length);
  undoable.splice(undoable.length - taken);
  return { undoable, redoable, undoneBefore: undoneBefore + undoneLater - taken };
}

/** The change that another takes back, as far as it can be told from that one. */
function originalOf(undoing: Change): Change {
  const { undoes: _, ...original } = inverseOf(undoing, undoing.undoes!, undoing.label.replace(/^Undo: /, ''));
  return original;
}

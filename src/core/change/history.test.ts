import fc from 'fast-check';
import { wanderingDrawing } from '../test/drawings';
import type { Drawing } from '../drawing/schema';
import { applyChange, inverseOf } from './apply';
import type { Change } from './change';
import { changeOf } from './changeOf';
import { stacksOf } from './history';
import { moveLines } from '../edits/lines';

const start = wanderingDrawing(3, 2, 1);

/** A hand that makes changes, undoes and redoes, as the bench does; with what it could still undo and redo. */
function work(plan: readonly ('do' | 'undo' | 'redo')[]) {
  let now: Drawing = start;
  const journal: Change[] = [];
  const [undoable, redoable]: Change[][] = [[], []];
  const make = (change: Change): void => {
    now = applyChange(now, change);
    journal.push(change);
  };
  plan.forEach((what, i) => {
    if (what === 'do') {
      const change = changeOf(moveLines(now, [`l${i % 3}`], { x: i + 1, y: 1 }), `c${i}`);
      make(change);
      undoable.push(change);
      redoable.length = 0;
    } else if (what === 'undo' && undoable.length > 0) {
      const change = undoable.pop()!;
      make(inverseOf(change, `u${i}`, `Undo: ${change.label}`));
      redoable.push(change);
    } else if (what === 'redo' && redoable.length > 0) {
      const change = redoable.pop()!;
      make({ ...change, id: `r${i}`, redoes: change.id });
      undoable.push(change);
    }
  });
  return { now, journal, undoable, redoable };
}

const plans = fc.array(fc.constantFrom('do' as const, 'do' as const, 'undo' as const, 'redo' as const), {
  maxLength: 60,
});
const steps = (list: readonly Change[]) => list.map((c) => c.steps);

test('what could be undone and redone is told from the journal, in one piece or in stretches', () => {
  fc.assert(
    fc.property(plans, fc.integer({ min: 1, max: 9 }), (plan, length) => {
      const { journal, undoable, redoable, now } = work(plan);
      const whole = stacksOf(journal);
      expect([steps(whole.undoable), steps(whole.redoable), whole.undoneBefore]).toEqual([
        steps(undoable),
        steps(redoable),
        0,
      ]);
      // From the newest stretch back.
      let [list, undone]: [Change[], number] = [[], 0];
      for (let end = journal.length; end > 0; end -= length) {
        const part = stacksOf(journal.slice(Math.max(0, end - length), end), undone);
        list = [...part.undoable, ...list];
        undone = part.undoneBefore;
        if (end === journal.length) expect(steps(part.redoable).slice(-1)).toEqual(steps(redoable).slice(-1));
      }
      expect(steps(list)).toEqual(steps(undoable));
      const back = list.toReversed().reduce((d, c) => applyChange(d, inverseOf(c, 'x', 'x')), now);
      expect(JSON.stringify(back)).toBe(JSON.stringify(start));
    }),
    { numRuns: 300 },
  );
});

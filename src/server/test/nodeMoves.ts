import { applyChange, type Change, type Drawing } from '@/core';
import { changeOf } from '@/core/change/changeOf';
import { moveNodes } from '@/core/edits/nodes';
import { wanderingDrawing } from '@/core/test/drawings';

/** A drawing of twenty lines. */
export const start = wanderingDrawing(20, 6, 5);

/** So many changes of a node each, from a state on, and the state after them. */
export function nodeMoves(count: number, from: Drawing = start, x = 1): { changes: Change[]; last: Drawing } {
  let last = from;
  const changes = Array.from({ length: count }, (_, i) => {
    const edit = moveNodes(last, [{ line: `l${i % 20}`, run: 0, node: i % 5 }], { x, y: (i % 7) - 3 });
    const change = changeOf(edit, `c${i}`);
    last = applyChange(last, change);
    return change;
  });
  return { changes, last };
}

import { applyChange, type Change } from '@/core';
import { moveLines } from '@/core/edits/lines';
import { wanderingDrawing } from '@/core/test/drawings';

/** The drawing that a hand in tests begins with. */
export const firstDrawing = wanderingDrawing(3, 2, 1);

/** So many changes, each made on the one before; their ids begin with `prefix`. */
export function madeChanges(n: number, prefix: string): Change[] {
  let now = firstDrawing;
  return Array.from({ length: n }, (_, i) => {
    const change = { id: `${prefix}${i}`, ...moveLines(now, ['l0'], { x: 1, y: 0 }) };
    now = applyChange(now, change);
    return change;
  });
}

/** Waits for something to come about. */
export async function until(holds: () => boolean | Promise<boolean>): Promise<void> {
  for (let i = 0; i < 400; i++) {
    if (await holds()) return;
    await new Promise((r) => setTimeout(r, 10));
  }
  throw new Error('it never came about');
}

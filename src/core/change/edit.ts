import { dequal } from 'dequal';
import type { Step } from './change';

/** What an edit would do: steps, and the words for them. Without steps, it does nothing. */
export type Edit = { readonly label: string; readonly steps: readonly Step[] };

export const edit = (label: string, ...steps: (Step | readonly Step[])[]): Edit => ({
  label,
  steps: steps.flat() as Step[],
});

/** Of what is wanted, all that differs from what there is: as a step has its two sides. Null where nothing does. */
export function sidesOf<T extends object>(now: T, wanted: Partial<T>): { before: object; after: object } | null {
  const keys = (Object.keys(wanted) as (keyof T)[]).filter((k) => !dequal(now[k], wanted[k]));
  const pick = (from: Partial<T>): object => Object.fromEntries(keys.map((k) => [k, from[k]]));
  return keys.length > 0 ? { before: pick(now), after: pick(wanted) } : null;
}

/** "Move line", "Move 3 lines". */
export const counted = (verb: string, count: number, noun: string): string =>
  count === 1 ? `${verb} ${noun}` : `${verb} ${count} ${noun}s`;

import type { Step } from './change';

/** What an edit would do: steps, and the words for them. Without steps, it does nothing. */
export type Edit = { readonly label: string; readonly steps: readonly Step[] };

export const edit = (label: string, ...steps: (Step | readonly Step[])[]): Edit => ({
  label,
  steps: steps.flat() as Step[],
});

/** "Move line", "Move 3 lines". */
export const counted = (verb: string, count: number, noun: string): string =>
  count === 1 ? `${verb} ${noun}` : `${verb} ${count} ${noun}s`;

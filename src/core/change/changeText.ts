import type { Change } from './change';

let last: { change: Change; text: string } | null = null;

/** A change as JSON. The last one asked for is kept: several ask for the same, and it may be long. */
export function changeText(change: Change): string {
  if (last?.change !== change) last = { change, text: JSON.stringify(change) };
  return last.text;
}

/** Texts longer than this (characters) hold very much: they are handed on as they are, and read by a worker. */
export const LONG_TEXT = 100_000;
const MANY_STEPS = 500;

/** Whether a change holds very much; of one of very many steps that is seen without writing it out. */
export const isLong = (change: Change): boolean =>
  change.steps.length > MANY_STEPS || changeText(change).length > LONG_TEXT;

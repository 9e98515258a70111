import type { Change } from '../src/core';

/** What the soak and its simulated browsers tell each other. */
export type ToBrowser = { kind: 'cut'; on: boolean } | { kind: 'take over' } | { kind: 'finish' };

export type Ended = {
  kind: 'ended';
  made: Change[];
  /** By the ids of changes: which drawing took them, in place or aside. */
  acknowledged: [string, string][];
  aside: [string, readonly string[]][];
  /** What is kept in the browser alone, to be saved as a file. */
  stuck: string[];
};
export type FromBrowser = Ended | { kind: 'failed'; why: string };

import type { Keeping } from '@/server/keeping/keeper';

export type Deed =
  | { deed: 'check' | 'back up' | 'begin anew' | 'salvage' | 'forget loss' | 'send' }
  | { deed: 'restore'; backup: string }
  | { deed: 'delete aside'; aside: string };

/** Does something for safe-keeping, and says what came of it. */
export type Do = (deed: Deed, done: (state: Keeping) => string) => void;

/** What each part of the page is given. */
export type Part = { state: Keeping; busy: string | null; run: Do };

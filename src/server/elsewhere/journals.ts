import type { Change, Drawing } from '@/core';
import { appendSoon } from '../append';
import { keepDrawing } from '../drawings';
import { historyOf, stateOf } from '../journal';
import type { Asked } from '../planned';
import type { State } from '../replayed';

/**
 * Where the changes of drawings are kept, each with the revision that it makes: here, or in an engine beyond this machine. A
 * promise that is kept says that the disk holds it.
 */
export interface Journal {
  /** Begins a drawing, under its first revision, 0; gives its id. */
  begin(title: string, first: Drawing): Promise<string>;
  /** Appends changes, all or none, as `planned` says. @throws Problem 404, 409, 422 */
  append(asked: Asked): Promise<{ revision: number }>;
  /** A drawing as it is, or as it was at a revision. @throws Problem 404; 409 where it cannot be read so far */
  state(id: string, revision?: number): Promise<State>;
  /** The changes before a revision, in their order, at most so many; as far back as they can be read. */
  history(id: string, before: number, most: number): Promise<{ from: number; changes: Change[] }>;
}

/** The one in this machine's data folder. */
export const journalHere: Journal = {
  begin: async (title, first) => keepDrawing(title, first).id,
  append: appendSoon,
  state: async (id, revision) => stateOf(id, revision),
  history: async (id, before, most) => historyOf(id, before, most),
};

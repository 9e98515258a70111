import { applyChange, type Change, type Drawing } from '@/core';
import { upgradedChange } from '@/core/change/upgradeChange';
import { Problem } from './problem';

export type State = { revision: number; drawing: Drawing };
/** What of a drawing's journal cannot be read: from one revision to the last, and why. */
export type Damage = { from: number; to: number; why: string };

/** A row of a journal, sound or not. */
type Row = { readonly revision: number; readonly body: string; readonly schema: number };

export type Replayed = { state: State; damage: Damage | null };

/** A state after the changes since, up to the revision that is wanted; where one cannot be read, as far as they can. */
export function replayed(start: State, since: readonly Row[], wanted: number): Replayed {
  let state = start;
  const damaged = (why: string): Replayed => ({
    state,
    damage: { from: state.revision + 1, to: wanted, why },
  });
  for (const { revision: at, body, schema } of since) {
    if (at !== state.revision + 1) return damaged(`change ${state.revision + 1} is missing`);
    try {
      state = { revision: at, drawing: applyChange(state.drawing, upgradedChange(JSON.parse(body), schema)) };
    } catch (error) {
      return damaged(`change ${at} is damaged (${(error as Error).message})`);
    }
  }
  if (state.revision !== wanted) return damaged(`change ${state.revision + 1} is missing`);
  return { state, damage: null };
}

/** The whole of it. @throws Problem 409 where some of it cannot be read. */
export function whole({ state, damage }: Replayed): State {
  if (!damage) return state;
  throw new Problem(409, 'damaged', `The drawing cannot be read beyond change ${state.revision}: ${damage.why}.`, {
    revision: state.revision,
  });
}

/** Where a drawing has no snapshot that is of use. */
export const noneReadable = (why = 'there is no snapshot of it'): Problem =>
  new Problem(409, 'damaged', `Nothing of this drawing can be read: ${why}.`);

/** The changes in rows that come newest first, in their order; as far back as they can be read. */
export function readBack(rows: readonly Pick<Row, 'body' | 'schema'>[]): Change[] {
  const changes: Change[] = [];
  for (const { body, schema } of rows) {
    try {
      changes.push(upgradedChange(JSON.parse(body), schema));
    } catch {
      break;
    }
  }
  return changes.reverse();
}

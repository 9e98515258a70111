import type { Change, Drawing } from '@/core';
import { historyOf, type History, type JournalChange } from '@/core/change/historyPoints';
import { upgradedChange } from '@/core/change/upgradeChange';

/** A row of the journal: a change as JSON, under the schema that it was written in. */
export type JournalRow = {
  readonly revision: number;
  readonly at: number;
  readonly body: string;
  readonly schema: number;
};

/** What the rows of a journal tell, as far as they can be read. */
export function history(first: Drawing, rows: readonly JournalRow[], most: number): History {
  const changes: JournalChange[] = [];
  try {
    for (const { revision, at, body, schema } of rows)
      changes.push({ revision, at, change: upgradedChange(JSON.parse(body), schema) as Change });
  } catch {
    // What comes after a damaged change cannot be read.
  }
  return historyOf(first, changes, most);
}

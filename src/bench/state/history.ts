import type { Drawing } from '@/core';
import type { History } from '@/core/change/historyPoints';
import { ask, journalUrl } from './api';

/** How a drawing came about, as its journal tells. @throws ApiError. */
export const drawingHistory = (id: string): Promise<History> => ask(`/api/drawings/${id}/history`);

/** A row of the journal: a change as JSON, under the schema that it was written in. */
export type JournalRow = { readonly revision: number; readonly body: string; readonly schema: number };
export const journalOf = (id: string): Promise<{ rows: readonly JournalRow[] }> => ask(journalUrl(id, 1));

/** A drawing as it was at a revision. @throws ApiError. */
export const drawingAt = (id: string, revision: number): Promise<{ revision: number; drawing: Drawing }> =>
  ask(`/api/drawings/${id}/revisions/${revision}`);
export const pictureAt = (id: string, revision: number): string => `/api/drawings/${id}/revisions/${revision}/picture`;

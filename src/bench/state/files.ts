import type { Delivery } from '@/core/deliver/delivery';
import type { Motion } from '@/core/replay/motion';
import { ask, askJson, refusalIn } from './api';

/** Files that the server makes of a drawing. */
export type FileJob = {
  readonly id: string;
  readonly revision: number;
  readonly state: 'waiting' | 'working' | 'done' | 'failed';
  readonly made: number;
  readonly total: number;
  readonly name: string;
  readonly bytes: number | null;
  readonly reason: string | null;
  readonly at: number;
  readonly endedAt: number | null;
};
/** What is asked for at once: a delivery, and what its files are called beside the drawing's title. */
export type NamedDelivery = { readonly name: string; readonly wanted: Delivery; readonly motion?: Motion };

/** One file, made now; nobody makes it any more once it is called off. @throws ApiError with words for a person. */
export async function fetchFile(id: string, wanted: Delivery, signal: AbortSignal): Promise<Blob> {
  const response = await fetch(`/api/drawings/${id}/export`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(wanted),
    signal,
  });
  if (!response.ok) throw await refusalIn(response);
  return response.blob();
}

/** Has files made, whether anybody waits or not. @throws ApiError. */
export const beginFiles = (id: string, deliveries: readonly NamedDelivery[]): Promise<{ job: FileJob }> =>
  askJson(`/api/drawings/${id}/files`, 'POST', { deliveries });
export const listFiles = (id: string): Promise<{ jobs: FileJob[] }> => ask(`/api/drawings/${id}/files`);
/** Calls files off, or forgets them. */
export const dropFiles = (job: string): Promise<unknown> => ask(`/api/files/${job}`, { method: 'DELETE' });
export const fileHref = (job: string): string => `/api/files/${job}/content`;

import type { Delivery } from '@/core/deliver/delivery';
import { ask, askJson } from './api';

/** Somewhere that work is handed in to; `deadline` in ms since 1970. */
export type Place = {
  readonly id: string;
  readonly name: string;
  readonly takes: string;
  readonly formats: readonly string[];
  readonly deadline: number | null;
};
export type HandIn = {
  readonly id: string;
  readonly place: string;
  readonly state: 'sending' | 'received' | 'refused' | 'failed';
  readonly name: string;
  readonly bytes: number;
  readonly sent: number;
  readonly receipt: string | null;
  readonly receivedAt: number | null;
  readonly reason: string | null;
  readonly at: number;
};

/** All may @throws ApiError. */
export const listPlaces = (): Promise<{ places: Place[] }> => ask('/api/places');
export const listHandIns = (id: string): Promise<{ handIns: HandIn[] }> => ask(`/api/drawings/${id}/hand-ins`);
/** `lacking`: also where a picture that belongs in the file is missing; else that is refused with the code `lacking`. */
export const handIn = (id: string, place: string, wanted: Delivery, lacking: boolean): Promise<{ handIn: HandIn }> =>
  askJson(`/api/drawings/${id}/hand-ins`, 'POST', { place, wanted, lacking });
export const sendAgain = (handed: string): Promise<unknown> => ask(`/api/hand-ins/${handed}`, { method: 'POST' });
export const dropHandIn = (handed: string): Promise<unknown> => ask(`/api/hand-ins/${handed}`, { method: 'DELETE' });
export const handedHref = (handed: string): string => `/api/hand-ins/${handed}/content`;

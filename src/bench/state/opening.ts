import type { Drawing } from '@/core';
import { unpacked } from '@/core/formats/packed';
import { takeAhead } from './ahead';
import { ApiError, ask, askPacked, type Opened } from './api';

const origins = new WeakMap<Drawing, ArrayBuffer>();

/** The bytes that a drawing was unpacked from, if it is as it was opened. */
export const bytesOf = (drawing: Drawing): ArrayBuffer | undefined => origins.get(drawing);

/**
 * A drawing as it is by now; `mayBeAhead`: or as it was when the page was asked for. What cannot be unpacked here is asked
 * for once more, as JSON: the server looks into it then, and says how far it can be read. @throws ApiError
 */
export async function openDrawing(id: string, mayBeAhead = false): Promise<Opened> {
  const ahead = takeAhead(id);
  try {
    const { about, bytes } = await ((mayBeAhead && ahead) || askPacked(id));
    const drawing = unpacked(new Uint8Array(bytes));
    origins.set(drawing, bytes);
    return { ...about, drawing };
  } catch (error) {
    if (error instanceof ApiError) throw error;
    return ask<Opened>(`/api/drawings/${id}`, { cache: 'reload' });
  }
}

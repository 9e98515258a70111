import { promisify } from 'node:util';
import { gunzip, gunzipSync, gzip, gzipSync } from 'node:zlib';
import type { Drawing } from '@/core';
import { upgradedDrawing } from '@/core/drawing/upgrade';
import { isPacked, packed, unpacked } from '@/core/formats/packed';

/** What a snapshot holds: a drawing packed and compressed; earlier programs compressed JSON, the first kept it as text. */

/** Packing harder takes three times as long, for a twentieth less. */
const PACKING = { level: 4 };

const compressed = promisify<Uint8Array, { level: number }, Buffer>(gzip);
const decompressed = promisify<Uint8Array, Buffer>(gunzip);

export const bodyOf = (drawing: Drawing): Buffer => gzipSync(packed(drawing), PACKING);

/** The same, compressed while others go on; and how many bytes the drawing has. */
export async function bodySoon(drawing: Drawing): Promise<{ body: Buffer; size: number }> {
  const bytes = packed(drawing);
  return { body: await compressed(bytes, PACKING), size: bytes.length };
}

const isCompressed = (body: Buffer): boolean => body[0] === 0x1f && body[1] === 0x8b;

/** What a snapshot holds, as it was before it was compressed. @throws when it is damaged. */
export const inflated = (body: Buffer): Buffer => (isCompressed(body) ? gunzipSync(body) : body);

/** The drawing in a snapshot. @throws whatever a damaged one brings about. */
export function drawingIn(body: Buffer): Drawing {
  const bytes = inflated(body);
  return isPacked(bytes) ? unpacked(bytes) : upgradedDrawing(JSON.parse(bytes.toString('utf8')));
}

/** The packed drawing in a snapshot, sound or not; null where it cannot be had, or an earlier program took it. */
export async function packedIn(body: Buffer): Promise<Buffer | null> {
  if (!isCompressed(body)) return null;
  const bytes = await decompressed(body).catch(() => null);
  return bytes && isPacked(bytes) ? bytes : null;
}

/** Whether a snapshot is of the past that a change is the last of, by their digests; where either has none it may be. */
export const isOf = (snapshot: string | null, change: string | null): boolean =>
  snapshot === null || change === null || snapshot === change;

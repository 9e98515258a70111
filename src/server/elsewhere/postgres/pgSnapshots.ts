import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import type { Drawing } from '@/core';
import { packed, unpacked } from '@/core/formats/packed';

const compressed = promisify<Uint8Array, Buffer>(gzip);
const decompressed = promisify<Uint8Array, Buffer>(gunzip);

/** A drawing packed and compressed. */
export const snapshotOf = (drawing: Drawing): Promise<Buffer> => compressed(packed(drawing));

/** The drawing in a snapshot; null where it is damaged. */
export async function readSnapshot(body: Uint8Array): Promise<Drawing | null> {
  try {
    return unpacked(await decompressed(body));
  } catch {
    return null;
  }
}

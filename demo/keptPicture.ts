import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { GrayImage } from '../src/core';

const folder = path.join('test-results', 'pictures');
/** What pictures are made by. */
const sources = ['src/server/simulated', 'src/core/raster', 'demo'];

let key: string | null = null;

/** Told from all that makes pictures, so that none is kept that would be made otherwise by now. */
function keyOfSources(): string {
  if (key) return key;
  const hash = createHash('sha256');
  for (const root of sources)
    for (const file of readdirSync(root, { recursive: true, encoding: 'utf8' }).sort())
      if (file.endsWith('.ts') && !file.endsWith('.test.ts')) hash.update(readFileSync(path.join(root, file)));
  return (key = hash.digest('hex').slice(0, 16));
}

/** What takes long to make, kept on the disk: many work on the same few pictures. */
export async function keptBytes(name: string, make: () => Promise<Buffer>): Promise<Buffer> {
  const file = path.join(folder, `${name}-${keyOfSources()}`);
  if (existsSync(file)) return readFileSync(file);
  const bytes = await make();
  mkdirSync(folder, { recursive: true });
  // Whole or not at all: another may be making the same.
  const part = `${file}.${process.pid}`;
  writeFileSync(part, bytes);
  renameSync(part, file);
  return bytes;
}

/** The same of a grey picture. */
export async function keptPicture(name: string, make: () => Promise<GrayImage>): Promise<GrayImage> {
  const kept = await keptBytes(`grey-${name}`, async () => {
    const { width, height, data } = await make();
    const head = Buffer.alloc(8);
    head.writeUInt32LE(width, 0);
    head.writeUInt32LE(height, 4);
    return Buffer.concat([head, data]);
  });
  const [width, height] = [kept.readUInt32LE(0), kept.readUInt32LE(4)];
  return { width, height, data: new Uint8Array(kept.subarray(8)) };
}

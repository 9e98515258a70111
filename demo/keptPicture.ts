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

/** A grey picture that takes long to make, kept on the disk: many tests work on the same few. */
export async function keptPicture(name: string, make: () => Promise<GrayImage>): Promise<GrayImage> {
  const file = path.join(folder, `${name}-${keyOfSources()}`);
  if (existsSync(file)) {
    const kept = readFileSync(file);
    const [width, height] = [kept.readUInt32LE(0), kept.readUInt32LE(4)];
    return { width, height, data: new Uint8Array(kept.subarray(8)) };
  }
  const image = await make();
  const head = Buffer.alloc(8);
  head.writeUInt32LE(image.width, 0);
  head.writeUInt32LE(image.height, 4);
  mkdirSync(folder, { recursive: true });
  // Whole or not at all: another may be making the same.
  const part = `${file}.${process.pid}`;
  writeFileSync(part, Buffer.concat([head, image.data]));
  renameSync(part, file);
  return image;
}

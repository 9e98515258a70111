import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync } from 'node:fs';
import { copyFile, readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { putInPlace } from '../keeping/durable';
import type { Kept, ObjectStore } from './objectStore';

/** A store in a folder, as on a second disk. The folder itself must be there: a disk that is not in is not written around. */
export function folderStore(root: string): ObjectStore {
  const fileOf = (name: string): string => path.join(root, ...name.split('/'));
  const present = async (): Promise<void> => {
    if (!existsSync(root)) throw new Error(`The folder ${root} is not there.`);
  };
  return {
    where: root,
    async put(name, file) {
      await present();
      const to = fileOf(name);
      mkdirSync(path.dirname(to), { recursive: true });
      const temporary = `${to}.${randomUUID()}.new`;
      try {
        await copyFile(file, temporary);
        putInPlace(temporary, to);
      } finally {
        await rm(temporary, { force: true });
      }
    },
    async get(name, file) {
      await present();
      const from = fileOf(name);
      if (!existsSync(from)) return false;
      await copyFile(from, file);
      return true;
    },
    async list(prefix) {
      await present();
      const found = new Map<string, Kept>();
      const folder = fileOf(prefix);
      for (const name of existsSync(folder) ? await readdir(folder) : []) {
        if (name.endsWith('.new')) continue;
        const { size, mtimeMs } = await stat(path.join(folder, name));
        found.set(`${prefix}${name}`, { bytes: size, at: mtimeMs });
      }
      return found;
    },
    async remove(names) {
      for (const name of names) await rm(fileOf(name), { force: true });
    },
  };
}

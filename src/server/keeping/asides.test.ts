import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { emptyDrawing, plainPage } from '@/core';
import { POST } from '../../app/api/keeping/route';
import { keepDrawing, listDrawings } from '../drawings';
import { closeDatabase } from '../database';
import { dataFolder } from '../place';
import { call, freshDataFolder } from '../test/dataFolder';
import { listAsides } from './asides';
import type { Keeping } from './keeper';
import { asideFolder, databaseFile, stamp } from './places';
import { putAside } from './restore';

freshDataFolder();

const page = plainPage({ width: 100, height: 100, unit: 'px', dpi: 96, ground: null });

test('what was put aside is listed with its moment and size, and is deleted by its name alone', async () => {
  const aside = asideFolder(dataFolder());
  const moments = [1_795_900_000_123, 1_795_900_000_999];
  for (const at of moments) {
    keepDrawing('Pear', emptyDrawing(page, { id: 's', name: 'Sheet 1', tag: '#8f2d63' }));
    closeDatabase();
    putAside(dataFolder(), at);
  }
  // Somebody's own, and not ours to delete.
  mkdirSync(path.join(aside, 'mine'));
  writeFileSync(path.join(dataFolder(), 'kept.txt'), 'kept');
  const listed = listAsides(dataFolder());
  expect(listed.map((a) => a.at)).toEqual(moments.toReversed());
  for (const { bytes } of listed) expect(bytes).toBeGreaterThan(10_000);

  await call(POST, 'POST', {}, { body: { deed: 'begin anew' } });
  keepDrawing('Newer', emptyDrawing(page, { id: 's', name: 'Sheet 1', tag: '#8f2d63' }));
  const deleted = (name: string) => call(POST, 'POST', {}, { body: { deed: 'delete aside', aside: name } });
  for (const name of ['mine', 'none', '20261129-060730-120']) expect((await deleted(name)).status).toBe(404);
  for (const name of ['..', '../aside', 'a/b', '']) expect((await deleted(name)).status).toBe(400);
  const { status, json } = await deleted(stamp(moments[0]));
  expect([status, (json as Keeping).asides.map((a) => a.at)]).toEqual([200, [moments[1]]]);
  expect((await deleted(stamp(moments[0]))).status).toBe(404);
  expect(readdirSync(aside).toSorted()).toEqual([stamp(moments[1]), 'mine'].toSorted());
  expect(readFileSync(path.join(dataFolder(), 'kept.txt'), 'utf8')).toBe('kept');
  expect(existsSync(databaseFile(dataFolder()))).toBe(true);
  expect(listDrawings().map((d) => d.title)).toEqual(['Newer']);
});

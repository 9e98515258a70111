import {
  closeSync,
  existsSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { setSheet } from '@/core/edits/sheets';
import { emptyDrawing, plainPage } from '@/core';
import { closeDatabase, database } from '../database';
import { keepDrawing, listDrawings } from '../drawings';
import { appendChanges } from '../append';
import { forgetAll, readableState, stateOf } from '../journal';
import { pictureOf, takePicture } from '../pictures';
import { dataFolder } from '../place';
import { Problem } from '../problem';
import { freshDataFolder } from '../test/dataFolder';
import { backupFile, backupNow, listBackups, makeRoom, outgrownBackups, type Backup } from './backups';
import { checkData } from './check';
import { beginAnew, forgetLoss, keepingNow, restore, salvage, troubleNow } from './keeper';
import { databaseFile, picturesFolder } from './places';
import { lossOf } from './witness';

freshDataFolder();

const page = plainPage({ width: 100, height: 100, unit: 'px', dpi: 96, ground: null });
const fresh = (title: string): string =>
  keepDrawing(title, emptyDrawing(page, { id: 's', name: 'Sheet 1', tag: '#8f2d63' })).id;
function change(id: string, times: number): number {
  for (let i = 0; i < times; i++) {
    const { drawing, revision } = stateOf(id);
    appendChanges(id, revision, [
      { id: randomUUID(), ...setSheet(drawing, 's', { name: `Name ${revision}` }, 'Rename sheet') },
    ]);
  }
  return stateOf(id).revision;
}
const nameOf = (id: string): string => stateOf(id).drawing.sheets[0].name;
/** The program ends as when it is killed: nothing is brought from the log into the database, nothing is tidied up. */
function kill(): void {
  const store = database();
  // A second reader keeps the log from being taken in when the first closes.
  const reader = new Database(databaseFile(dataFolder()), { readonly: true });
  reader.prepare('begin').run();
  reader.prepare('select count(*) from drawings').get();
  store.$client.pragma('wal_autocheckpoint = 0');
  closeDatabase();
  forgetAll();
  readers.push(reader);
}
const readers: Database.Database[] = [];
const settle = (): void => readers.splice(0).forEach((r) => r.close());
afterEach(settle);
const codeOf = (run: () => unknown): string => {
  try {
    run();
  } catch (error) {
    return error instanceof Problem ? error.code : String(error);
  }
  return 'none';
};
async function aPicture(colour: string): Promise<string> {
  const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: colour } })
    .png()
    .toBuffer();
  return (await takePicture(new Blob([new Uint8Array(bytes)]).stream(), bytes.length)).hash;
}
beforeEach(() => {
  closeDatabase();
  forgetAll();
  for (const name of readdirSync(dataFolder())) rmSync(path.join(dataFolder(), name), { recursive: true, force: true });
});

test('a sound folder has no findings, and a report of what it keeps', async () => {
  change(fresh('Pear'), 5);
  await aPicture('#102030');
  const report = checkData(dataFolder());
  expect(report).toMatchObject({ drawings: 1, changes: 5, pictures: 1, findings: [] });
  expect(report.bytes.database).toBeGreaterThan(1_000);
  expect(keepingNow().report).toEqual(report);
});

test.each([
  ['a body altered', `update journal set body = replace(body, 'Name 2', 'Game 2') where revision = 3`, 3],
  ['a change taken out', 'delete from journal where revision = 2', 2],
  ['the last one taken out', 'delete from journal where revision = 5', 5],
  ['a label altered', `update journal set label = 'x' where revision = 4`, 4],
])('%s is found, and it is said from where on', (_, sql, at) => {
  const id = fresh('Pear');
  change(id, 5);
  database().$client.exec(sql);
  const { findings } = checkData(dataFolder());
  expect(findings).toHaveLength(1);
  expect(findings[0]).toMatchObject({ what: 'drawing', drawing: id });
  expect(findings[0].words).toContain(`“Pear”: change ${at} of 5 is damaged or missing`);
});

test('a damaged snapshot, a picture that is missing and one that was altered are named', async () => {
  const id = fresh('Pear');
  const [gone, altered] = [await aPicture('#111111'), await aPicture('#222222')];
  database().$client.prepare('update snapshots set body = ? where drawing_id = ?').run(Buffer.from('no'), id);
  rmSync(path.join(picturesFolder(dataFolder()), gone));
  writeFileSync(path.join(picturesFolder(dataFolder()), altered), 'no');
  const words = checkData(dataFolder())
    .findings.map((f) => f.words)
    .join('\n');
  expect(words).toContain('nothing of it can be read');
  expect(words).toContain(`is missing (${gone.slice(0, 12)}`);
  expect(words).toContain(`is not as it came (${altered.slice(0, 12)}`);
});

test('a backup is taken while a hand is at work, is put back, and what was there meanwhile is a backup too', async () => {
  const id = fresh('Pear');
  change(id, 3);
  const hash = await aPicture('#334455');
  const backup = backupNow(dataFolder(), 'asked');
  expect(backup).toMatchObject({ drawings: 1, changes: 3, pictures: [hash] });
  change(id, 4);
  const late = nameOf(id);
  rmSync(path.join(picturesFolder(dataFolder()), hash));
  await restore(backup.name);
  expect(stateOf(id).revision).toBe(3);
  expect(existsSync(path.join(picturesFolder(dataFolder()), hash))).toBe(true);
  // Going back is no loss that is told of.
  expect(lossOf(dataFolder())).toBeNull();
  const before = listBackups(dataFolder()).find((b) => b.reason === 'before-restore')!;
  await restore(before.name);
  expect([stateOf(id).revision, nameOf(id)]).toEqual([7, late]);
  expect(checkData(dataFolder()).findings).toEqual([]);
});

test('where room is short the oldest backups go, but for the newest sound ones and the one that is wanted', () => {
  const id = fresh('Pear');
  change(id, 2);
  const before = listBackups(dataFolder()).map((b) => b.name);
  const made = [1, 2, 3, 4, 5].map((n) => backupNow(dataFolder(), 'asked', undefined, Date.now() + n).name);
  makeRoom(dataFolder(), undefined, () => 1e12);
  expect(listBackups(dataFolder()).map((b) => b.name)).toEqual([...made.toReversed(), ...before]);
  let free = 0;
  makeRoom(dataFolder(), made[0], () => (free += 1));
  expect(listBackups(dataFolder()).map((b) => b.name)).toEqual([made[4], made[3], made[0]]);
});

test('a backup that is damaged is found, and is not put back', async () => {
  const id = fresh('Pear');
  change(id, 2);
  const { name } = backupNow(dataFolder(), 'asked');
  const file = openSync(backupFile(dataFolder(), name), 'r+');
  writeSync(file, Buffer.from('x'), 0, 1, 5_000);
  closeSync(file);
  expect(checkData(dataFolder()).findings.map((f) => f.what)).toEqual(['backup']);
  await expect(restore(name)).rejects.toMatchObject({ status: 409 });
  expect(stateOf(id).revision).toBe(2);
});

test('of what is damaged a backup says so, and does not push out a sound one', () => {
  const id = fresh('Pear');
  change(id, 3);
  const sound = backupNow(dataFolder(), 'asked');
  database().$client.exec(`update journal set body = replace(body, 'Name 1', 'Game 1') where revision = 2`);
  for (let i = 0; i < 12; i++) expect(backupNow(dataFolder(), 'asked', undefined, Date.now() + i).findings).toBe(1);
  const all = listBackups(dataFolder());
  expect(all.filter((b) => b.findings > 0)).toHaveLength(3);
  expect(all.map((b) => b.name)).toContain(sound.name);
});

test('a bounded number of backups is kept: the last days, then one a week, and what was asked for apart', () => {
  const day = 24 * 60 * 60 * 1000;
  const at = (days: number, reason: Backup['reason'] = 'daily'): Backup => ({
    name: `${days}`,
    at: -days * day,
    reason,
    bytes: 1,
    sha256: '',
    drawings: 0,
    changes: 0,
    findings: 0,
    pictures: [],
  });
  const all = [at(0.5, 'before-upgrade'), ...Array.from({ length: 60 }, (_, i) => at(i)), at(70, 'asked')];
  const gone = new Set(outgrownBackups(all, 0));
  const kept = all.filter((b) => !gone.has(b)).map((b) => Number(b.name));
  expect(kept).toEqual([0.5, 0, 1, 2, 3, 4, 5, 6, 7, 14, 21, 70]);
});

test('a database that is gone, or empty, beside what it kept is not taken for a fresh start', async () => {
  const id = fresh('Pear');
  change(id, 2);
  const backup = backupNow(dataFolder(), 'asked');
  closeDatabase();
  for (const end of ['', '-wal', '-shm']) rmSync(`${databaseFile(dataFolder())}${end}`, { force: true });
  expect(codeOf(database)).toBe('no-database');
  writeFileSync(databaseFile(dataFolder()), '');
  expect(codeOf(database)).toBe('no-database');
  expect(statSync(databaseFile(dataFolder())).size).toBe(0);
  expect(troubleNow()?.message).toContain('Nothing was begun in its place');
  await restore(backup.name);
  expect(troubleNow()).toBeNull();
  expect(stateOf(id).revision).toBe(2);
  // Where that is what is wanted.
  expect(() => beginAnew()).toThrow('works');
  closeDatabase();
  rmSync(databaseFile(dataFolder()));
  beginAnew();
  expect(listDrawings()).toEqual([]);
});

test('a database that is taken away while it is open acknowledges nothing any more; what it held is a backup', async () => {
  const id = fresh('Pear');
  change(id, 2);
  rmSync(databaseFile(dataFolder()));
  expect(codeOf(() => change(id, 1))).toBe('taken-away');
  const [rescued] = listBackups(dataFolder());
  expect(rescued).toMatchObject({ reason: 'rescued', drawings: 1, changes: 2 });
  await restore(rescued.name);
  expect(change(id, 1)).toBe(3);
});

test('a log that vanished with acknowledged changes in it is told of', () => {
  const id = fresh('Pear');
  change(id, 2);
  database().$client.pragma('wal_checkpoint(TRUNCATE)');
  change(id, 3);
  kill();
  expect(statSync(`${databaseFile(dataFolder())}-wal`).size).toBeGreaterThan(0);
  rmSync(`${databaseFile(dataFolder())}-wal`);
  settle();
  for (const end of ['-wal', '-shm']) rmSync(`${databaseFile(dataFolder())}${end}`, { force: true });
  expect(stateOf(id).revision).toBe(2);
  expect(keepingNow().loss).toMatchObject({ changes: 3 });
  forgetLoss();
  expect(keepingNow().loss).toBeNull();
  expect(change(id, 1)).toBe(3);
});

test('of a damaged database all that can be read is read; the damaged one lies aside as it was', async () => {
  const ids = ['Pear', 'Can', 'Pot'].map(fresh);
  for (const id of ids) change(id, 150);
  const hash = await aPicture('#556677');
  database().$client.pragma('wal_checkpoint(TRUNCATE)');
  closeDatabase();
  forgetAll();
  const file = databaseFile(dataFolder());
  const before = readFileSync(file);
  // A page in the midst of the journal, and the root of an index.
  const handle = openSync(file, 'r+');
  const size = before.readUInt16BE(16);
  writeSync(handle, Buffer.alloc(size, 0xa5), 0, size, Math.floor(before.length / size / 2) * size);
  closeSync(handle);
  const damaged = readFileSync(file);
  expect(checkData(dataFolder()).findings.map((f) => f.what)).toContain('database');
  const { rows } = await salvage();
  expect(rows).toBeGreaterThan(300);
  expect(
    listDrawings()
      .map((d) => d.title)
      .sort(),
  ).toEqual(['Can', 'Pear', 'Pot']);
  expect(pictureOf(hash).hash).toBe(hash);
  for (const id of ids) expect(readableState(id).drawing.sheets).toHaveLength(1);
  expect(ids.some((id) => readableState(id).revision === 150)).toBe(true);
  const [aside] = readdirSync(path.join(dataFolder(), 'aside'));
  expect(readFileSync(path.join(dataFolder(), 'aside', aside, 'yellow-quill.sqlite')).equals(damaged)).toBe(true);
});

test('a file that is no database at all is said to be damaged, and is not touched', () => {
  fresh('Pear');
  closeDatabase();
  writeFileSync(databaseFile(dataFolder()), 'this was a database once, and is not one any more');
  expect(troubleNow()?.code).toBe('corrupt');
  expect(readFileSync(databaseFile(dataFolder()), 'utf8')).toContain('once');
});

test('a database of a newer program is left alone; before an upgrade a backup is taken', () => {
  const id = fresh('Pear');
  change(id, 2);
  const client = database().$client;
  client.prepare('insert into __drizzle_migrations (hash, created_at) values (?, ?)').run('later', 9e15);
  closeDatabase();
  expect(codeOf(database)).toBe('newer-program');
  const again = new Database(databaseFile(dataFolder()));
  again.exec(`delete from __drizzle_migrations where created_at > 1e15;
    delete from __drizzle_migrations where created_at in
      (select created_at from __drizzle_migrations order by created_at desc limit 3);
    drop table gone; drop table counts; alter table journal drop column digest; alter table snapshots drop column digest;`);
  again.close();
  expect(stateOf(id).revision).toBe(2);
  expect(listBackups(dataFolder()).map((b) => [b.reason, b.changes])).toEqual([['before-upgrade', 2]]);
});

import type { Drawing } from '@/core';
import { unpacked } from '@/core/formats/packed';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { GET as openPacked } from '../app/api/drawings/[id]/packed/route';
import { appendChanges } from './append';
import { database } from './database';
import { duplicateDrawing, keepDrawing } from './drawings';
import { forget, stateOf } from './journal';
import { backupNow } from './keeping/backups';
import { checkData } from './keeping/check';
import { restore } from './keeping/keeper';
import { dataFolder } from './place';
import { snapshotsTaken, snapshotsUpTo } from './snapshots';
import { nodeMoves, start } from './test/nodeMoves';

freshDataFolder();
beforeEach(() => void jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'performance'] }));
afterEach(() => void jest.useRealTimers());

/** The drawing as a browser gets it. */
async function opened(id: string): Promise<Drawing> {
  const { response } = await call(openPacked, 'GET', { id });
  return unpacked(new Uint8Array(await response.arrayBuffer()));
}

test('of what a backup that was put back meanwhile does not have, none is kept', async () => {
  const { id } = keepDrawing('A', start);
  const { name } = backupNow(dataFolder(), 'asked');
  const { changes } = nodeMoves(1_000);
  appendChanges(id, 0, changes);
  jest.advanceTimersByTime(2_000);
  // It is being packed, and the database is another when that is done.
  await restore(name);
  await snapshotsTaken();
  expect(snapshotsUpTo(id, 1_000)).toEqual([0]);
  // The same number of other changes is opened as it was made.
  const others = nodeMoves(1_001, start, 3);
  appendChanges(id, 0, others.changes);
  forget(id);
  expect(stateOf(id).drawing).toEqual(others.last);
});

test('a snapshot of another past than the journal has is not used, is found by the check, and gives way to the right one', async () => {
  const taken = async (id: string): Promise<void> => {
    jest.advanceTimersByTime(2_000);
    await snapshotsTaken();
    forget(id);
  };
  const [one, other] = [nodeMoves(1_000), nodeMoves(1_000, start, 3)];
  const [{ id }, { id: twin }] = [keepDrawing('One', start), keepDrawing('Other', start)];
  appendChanges(id, 0, one.changes);
  appendChanges(twin, 0, other.changes);
  await taken(twin);
  await taken(id);
  expect(snapshotsUpTo(id, 1_000)).toEqual([1_000, 0]);
  expect(checkData(dataFolder()).findings).toEqual([]);
  database()
    .$client.prepare(
      `update snapshots set (body, digest) = (select body, digest from snapshots where drawing_id = ? and revision = 1000)
       where drawing_id = ? and revision = 1000`,
    )
    .run(twin, id);
  expect(await opened(id)).toEqual(one.last);
  forget(id);
  expect(stateOf(id).drawing).toEqual(one.last);
  const [found, ...more] = checkData(dataFolder()).findings;
  expect([found.words, found.opens, more]).toEqual([
    '“One”: a snapshot (of change 1000) is of another past than the changes; an older one and the changes since are used in its place.',
    true,
    [],
  ]);
  await taken(id);
  expect(checkData(dataFolder()).findings).toEqual([]);
  expect(await opened(id)).toEqual(one.last);
  // A copy's snapshots tell of their past as well.
  const { id: copy } = duplicateDrawing(id);
  expect(checkData(dataFolder()).findings).toEqual([]);
  const told = database().$client.prepare(
    'select digest is null from snapshots where drawing_id = ? order by revision',
  );
  expect(told.pluck().all(copy)).toEqual([1, 0]);
});

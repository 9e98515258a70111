import { statSync } from 'node:fs';
import { applyChange, emptyDrawing, plainPage, type Change } from '@/core';
import { setSheet } from '@/core/edits/sheets';
import { database } from './database';
import { keepDrawing } from './drawings';
import { appendChanges } from './append';
import { forgetAll, stateOf } from './journal';
import { databaseFile } from './keeping/places';
import { dataFolder } from './place';
import { snapshotsTaken } from './snapshots';
import { freshDataFolder } from './test/dataFolder';

freshDataFolder();

/** So many in the tests; 50,000 where there is time. */
const CHANGES = Number(process.env.CHANGES ?? 6_000);

test('after very many changes a drawing is replayed from near its end, and takes under three times what its journal holds', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask', 'performance', 'Date'] });
  const page = plainPage({ width: 100, height: 100, unit: 'px', dpi: 96, ground: null });
  let drawing = emptyDrawing(page, { id: 's', name: 'Sheet 1', tag: '#8f2d63' });
  const { id } = keepDrawing('Long', drawing);
  for (let at = 0; at < CHANGES; at += 500) {
    const changes: Change[] = [];
    for (let i = at; i < at + 500; i++) {
      const change = { id: `c${i}`, ...setSheet(drawing, 's', { name: `Name ${i}` }, 'Rename sheet') };
      drawing = applyChange(drawing, change);
      changes.push(change);
    }
    appendChanges(id, at, changes);
    // A hand rests now and then: that is when snapshots are taken.
    jest.advanceTimersByTime(2_000);
    await snapshotsTaken();
  }
  jest.useRealTimers();
  const client = database().$client;
  const newest = client.prepare('select max(revision) from snapshots where drawing_id = ?').pluck().get(id) as number;
  expect(CHANGES - newest).toBeLessThanOrEqual(1_500);
  const kept = client.prepare('select count(*) from snapshots where drawing_id = ?').pluck().get(id) as number;
  expect(kept).toBeLessThan(60);
  forgetAll();
  expect(stateOf(id).drawing).toEqual(drawing);
  client.pragma('wal_checkpoint(TRUNCATE)');
  const journal = client.prepare('select sum(length(body)) from journal').pluck().get() as number;
  expect(statSync(databaseFile(dataFolder())).size).toBeLessThan(3 * journal);
}, 120_000);

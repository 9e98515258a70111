import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import type { Change } from '@/core';
import { allLines } from '@/core/drawing/items';
import { moveLines, removeLines } from '@/core/edits/lines';
import { wanderingDrawing } from '@/core/test/drawings';
import { keepAsideCopy, keepPending, keepSeen, markStuck, pendingOf, seenOf, sentOf } from './pending';

test('the store of an earlier program keeps what it has, and can keep more', async () => {
  const earlier = await openDB('yellow-quill', 1, {
    upgrade: (db) => {
      db.createObjectStore('pending', { autoIncrement: true }).createIndex('drawing', 'drawing');
    },
  });
  await earlier.add('pending', { drawing: 'd', base: 4, change: { id: 'c' } });
  earlier.close();
  expect((await pendingOf('d')).map(({ pending }) => pending.base)).toEqual([4]);
  expect(await sentOf('d')).toEqual([]);
});

test('the oldest copies go where there are too many', async () => {
  const bytes = new ArrayBuffer(8);
  const names = Array.from({ length: 27 }, (_, i) => `seen${i}`);
  for (const [i, drawing] of names.entries()) await keepSeen({ drawing, revision: 1, bytes, at: (i * 7) % 27 });
  const kept = await Promise.all(names.map(async (n) => ((await seenOf(n)) ? [] : [n])));
  expect(kept.flat()).toEqual(names.filter((_, i) => (i * 7) % 27 < 3));
  // Kept anew, it is one of the newest.
  await keepSeen({ drawing: names[4], revision: 2, bytes, at: 99 });
  await keepSeen({ drawing: 'one more', revision: 1, bytes, at: 100 });
  expect((await seenOf(names[4]))?.revision).toBe(2);
  await keepAsideCopy({ aside: 'a', of: 'd', bytes, at: 1 });
});

test('changes are found as they were made, short and very long ones', async () => {
  const drawing = wanderingDrawing(300, 8, 2);
  const all = allLines(drawing).map((l) => l.id);
  const long: Change = { id: 'long', ...removeLines(drawing, all) };
  const short: Change = { id: 'short', ...moveLines(drawing, ['l0'], { x: 1, y: 2 }) };
  for (const [i, change] of [long, short].entries()) await keepPending({ drawing: 'long', base: i, change });
  const kept = await pendingOf('long');
  expect(kept.map((k) => k.pending.change)).toEqual([long, short]);
  await markStuck(kept, 'it does not fit');
  const marked = await pendingOf('long');
  expect(marked.map((k) => k.pending)).toEqual(kept.map((k) => ({ ...k.pending, stuck: 'it does not fit' })));
  // The long one lies there as a text.
  const store = await openDB('yellow-quill');
  const raw = (await store.getAll('pending')) as { base: number; drawing: string; text?: string }[];
  expect(raw.filter((r) => r.drawing === 'long').map((r) => typeof r.text)).toEqual(['string', 'undefined']);
  store.close();
});

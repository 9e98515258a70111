import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { keepAsideCopy, keepSeen, pendingOf, seenOf, sentOf } from './pending';

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

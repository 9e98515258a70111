import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { pendingOf, sentOf } from './pending';

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

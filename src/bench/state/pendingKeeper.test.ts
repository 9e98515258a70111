import 'fake-indexeddb/auto';
import type { Change } from '@/core';
import { allLines } from '@/core/drawing/items';
import { wanderingDrawing } from '@/core/test/drawings';
import { madeChanges, until } from '../test/madeChanges';
import { pendingOf } from './pending';
import { PendingKeeper } from './pendingKeeper';

const [line] = allLines(wanderingDrawing(1, 8, 1));
const long = (id: string): Change => ({
  id,
  label: 'Paste 600 lines',
  steps: Array.from({ length: 600 }, (_, i) => ({
    step: 'insertItem',
    at: { sheet: 's0', index: i },
    item: { ...line, id: `${id}-${i}` },
  })),
});
const [first, second] = madeChanges(2, 'short-');

const keptIn = async (drawing: string): Promise<string[]> =>
  (await pendingOf(drawing)).map(({ pending }) => pending.change.id);

/** All that needs no more than its turn. */
const noTime = async (): Promise<void> => {
  for (let i = 0; i < 50; i++) await Promise.resolve();
};

let write: jest.SpyInstance;
beforeEach(() => (write = jest.spyOn(JSON, 'stringify')));
afterEach(() => write.mockRestore());
const isWritten = (change: Change): boolean => write.mock.calls.some(([value]) => value === change);

test('a long change is written out and kept once it is seen', async () => {
  const keeper = new PendingKeeper();
  const paste = long('paste');
  const key = keeper.keep({ drawing: 'a', base: 0, change: paste });
  expect(isWritten(paste)).toBe(false);
  expect(await keptIn('a')).toEqual([]);
  expect(await key).toEqual(expect.any(Number));
  expect(isWritten(paste)).toBe(true);
  expect((await pendingOf('a')).map(({ pending }) => pending.change)).toEqual([paste]);
  keeper.end();
});

test('it is kept before the next one', async () => {
  const keeper = new PendingKeeper();
  const made = [first, long('x'), second, long('y'), long('z')];
  const keys = made.map((change, base) => keeper.keep({ drawing: 'b', base, change }));
  await Promise.all(keys);
  expect(await keptIn('b')).toEqual(made.map((c) => c.id));
  keeper.end();
});

test('it is kept at once where the page goes, or who keeps it ends', async () => {
  const page = new EventTarget();
  globalThis.addEventListener = page.addEventListener.bind(page);
  globalThis.removeEventListener = page.removeEventListener.bind(page);
  const goes: ((keeper: PendingKeeper) => void)[] = [
    () => page.dispatchEvent(new Event('pagehide')),
    (keeper) => keeper.end(),
  ];
  for (const [i, go] of goes.entries()) {
    const keeper = new PendingKeeper();
    const paste = long(`c${i}`);
    void keeper.keep({ drawing: 'c', base: i, change: paste });
    await noTime();
    expect(isWritten(paste)).toBe(false);
    go(keeper);
    await noTime();
    expect(isWritten(paste)).toBe(true);
    keeper.end();
  }
  await until(async () => (await keptIn('c')).join() === 'c0,c1');
});

test('where nothing can be kept there is no key, and the next one is asked for all the same', async () => {
  const keeper = new PendingKeeper();
  const add = jest.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
    throw new Error('no room');
  });
  expect(await keeper.keep({ drawing: 'e', base: 0, change: long('e') })).toBeNull();
  add.mockRestore();
  expect(await keeper.keep({ drawing: 'e', base: 1, change: first })).toEqual(expect.any(Number));
  keeper.end();
});

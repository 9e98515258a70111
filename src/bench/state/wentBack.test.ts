import 'fake-indexeddb/auto';
import { applyChange, type Change, type Drawing } from '@/core';
import { packed, unpacked } from '@/core/formats/packed';
import { FakeServer } from '../test/fakeServer';
import { madeChanges, firstDrawing, until } from '../test/madeChanges';
import { keepSeen, keepSent, pendingOf, sentOf } from './pending';
import { recoverPending, Saver } from './saver';
import { giveAgain, lookBack } from './wentBack';

let server: FakeServer;
let heard: string[];
let id = '';
let count = 0;

beforeEach(() => {
  server = new FakeServer();
  globalThis.fetch = server.fetch as typeof fetch;
  heard = [];
  id = `drawing-${++count}`;
});

const silent = {
  onState: () => undefined,
  onRefused: () => undefined,
  onAside: () => undefined,
  onStuck: () => undefined,
  onWentBack: () => undefined,
};
const newSaver = (revision = 0): Saver =>
  new Saver(id, revision, {
    onState: (s) => heard.push(s.kind),
    onRefused: () => heard.push('refused'),
    onAside: () => heard.push('aside'),
    onStuck: () => heard.push('stuck'),
    onWentBack: () => heard.push('went back'),
  });

const changes = (n: number, name = 'c'): Change[] => madeChanges(n, `${id}-${name}`);
async function saved(n: number): Promise<string[]> {
  const saver = newSaver();
  const made = changes(n);
  made.forEach((c) => saver.push(c));
  await until(async () => heard.at(-1) === 'saved' && (await sentOf(id)).length === n);
  saver.stop();
  return made.map((c) => c.id);
}
const last = (): string | undefined => server.journal.at(-1);
const look = (isBehind = false) => lookBack(id, { revision: server.journal.length, last: last() }, isBehind);

test('a server that has all that it had, or more, lacks nothing; the same state costs no request', async () => {
  await saved(5);
  const before = server.requests;
  expect(await look()).toBeNull();
  expect(server.requests).toBe(before);
  server.journal.push('of another browser');
  expect(await look()).toBeNull();
  expect(server.requests).toBe(before + 1);
});

test('changes that were acknowledged and are gone are given again, in their order', async () => {
  const ids = await saved(7);
  server.journal.length = 3;
  const back = await look();
  expect(back).toMatchObject({ revision: 3 });
  expect(back!.changes.map((c) => c.id)).toEqual(ids.slice(3));
  expect(await giveAgain(id, back!, true)).toEqual({ kind: 'back', count: 4 });
  expect(server.journal).toEqual(ids);
  expect(await look()).toBeNull();
  // And once more, if need be.
  server.journal.length = 2;
  const again = (await look())!;
  expect(again.changes.map((c) => c.id)).toEqual(ids.slice(2));
  await giveAgain(id, again, true);
  expect(server.journal).toEqual(ids);
});

test('all of them are given again to a server that has none', async () => {
  const ids = await saved(4);
  server.journal.length = 0;
  const back = (await look())!;
  expect(back.revision).toBe(0);
  await giveAgain(id, back, true);
  expect(server.journal).toEqual(ids);
});

test('where the drawing went on since without them they become one of their own, after what is in common', async () => {
  const ids = await saved(5);
  server.journal.length = 2;
  server.journal.push('x', 'y', 'z', 'more');
  const back = (await look())!;
  expect(back).toMatchObject({ revision: 2 });
  expect(await giveAgain(id, back, false)).toMatchObject({ kind: 'aside', count: 3 });
  expect(server.aside).toEqual([ids.slice(2)]);
  expect(server.journal).toEqual([...ids.slice(0, 2), 'x', 'y', 'z', 'more']);
  expect(await look()).toBeNull();
});

test('a saver that meets a server which has gone back stops, and what it had waiting is given along', async () => {
  const saver = newSaver();
  const made = changes(6);
  made.slice(0, 4).forEach((c) => saver.push(c));
  await until(async () => (await sentOf(id)).length === 4);
  server.journal.length = 1;
  made.slice(4).forEach((c) => saver.push(c));
  await until(() => heard.at(-1) === 'went back');
  expect(server.aside).toEqual([]);
  const back = (await look())!;
  expect(back.changes.map((c) => c.id)).toEqual(made.slice(1).map((c) => c.id));
  await giveAgain(id, back, true);
  expect(server.journal).toEqual(made.map((c) => c.id));
  expect(await pendingOf(id)).toEqual([]);
});

test('what waits from an earlier visit is not put aside because the server has gone back', async () => {
  await saved(3);
  server.mode = 'down';
  const saver = newSaver(3);
  saver.push(changes(1, 'late')[0]);
  await until(async () => (await pendingOf(id)).length === 1);
  saver.stop();
  server.mode = 'up';
  server.journal.length = 2;
  expect(await recoverPending(id)).toEqual({ kind: 'went back' });
  expect((await look())!.changes).toHaveLength(2);
});

test('what waits on changes of others that the server lost goes on from what it has', async () => {
  server.journal = ['of another', 'of another too'];
  server.mode = 'down';
  const saver = newSaver(2);
  const [change] = changes(1);
  saver.push(change);
  await until(async () => (await pendingOf(id)).length === 1);
  saver.stop();
  server.mode = 'up';
  server.journal.length = 1;
  expect(await recoverPending(id)).toEqual({ kind: 'went back' });
  const back = (await look(true))!;
  expect(back).toMatchObject({ revision: 1, changes: [{ id: change.id }] });
  expect(await giveAgain(id, back, true)).toEqual({ kind: 'back', count: 1 });
  expect(server.journal).toEqual(['of another', change.id]);
  expect(await pendingOf(id)).toEqual([]);
});

test('a line that breaks while they are given again leaves the rest to be given', async () => {
  const ids = await saved(250);
  server.journal.length = 10;
  const back = (await look())!;
  const { fetch: answering } = server;
  let answers = 0;
  globalThis.fetch = ((path: string, init?: RequestInit) => {
    if (init?.body && ++answers > 1) return Promise.reject(new TypeError('cut'));
    return answering(path, init);
  }) as typeof fetch;
  await expect(giveAgain(id, back, true)).rejects.toThrow('reached');
  globalThis.fetch = answering as typeof fetch;
  expect(server.journal).toHaveLength(110);
  const rest = (await look())!;
  expect(rest).toMatchObject({ revision: 110 });
  await giveAgain(id, rest, true);
  expect(server.journal).toEqual(ids);
});

test('what fits nowhere is offered as a file from then on, and not tried again', async () => {
  const ids = await saved(4);
  server.journal.length = 1;
  const back = (await look())!;
  server.asideStatus = 422;
  expect(await giveAgain(id, back, false)).toMatchObject({ kind: 'stuck', changes: [{}, {}, {}] });
  expect(await look()).toBeNull();
  const left = await recoverPending(id);
  expect(left.kind === 'stuck' && left.changes.map((c) => c.id)).toEqual(ids.slice(1));
});

test('where changes fit nowhere the drawing as it was seen here becomes one of its own', async () => {
  await keepSeen({ drawing: id, revision: 0, bytes: packed(firstDrawing).buffer as ArrayBuffer, at: 1 });
  await saved(4);
  server.journal.length = 1;
  const back = (await look())!;
  const { fetch: answering } = server;
  let whole: Drawing | null = null;
  globalThis.fetch = ((path: string, init?: RequestInit) => {
    if (typeof init?.body !== 'object') return answering(path, init);
    whole = unpacked(init.body as Uint8Array);
    return Promise.resolve(Response.json({ id: 'whole', title: 'Whole' }, { status: 201 }));
  }) as typeof fetch;
  server.asideStatus = 422;
  expect(await giveAgain(id, back, false)).toEqual({ kind: 'aside', id: 'whole', title: 'Whole', count: 3 });
  expect(whole).toEqual(changes(4).reduce<Drawing>((d, c) => applyChange(d, c), firstDrawing));
  globalThis.fetch = answering as typeof fetch;
  expect(await look()).toBeNull();
});

test('a server that went back and on again to the same number is noticed with the next change', async () => {
  const saver = newSaver();
  const made = changes(5);
  made.slice(0, 4).forEach((c) => saver.push(c));
  await until(async () => (await sentOf(id)).length === 4);
  server.journal.length = 2;
  server.journal.push('x', 'y');
  saver.push(made[4]);
  await until(() => heard.at(-1) === 'went back');
  expect(server.journal).toHaveLength(4);
  const back = (await look())!;
  expect(back.revision).toBe(2);
  expect(back.changes.map((c) => c.id)).toEqual(made.slice(2).map((c) => c.id));
});

test('what waits knows which change it was made on, another’s too: on another past it is not sent', async () => {
  server.journal = ['a', 'b'];
  server.mode = 'down';
  const saver = new Saver(id, 2, silent, 'b');
  const [change] = changes(1);
  saver.push(change);
  await until(async () => (await pendingOf(id)).length === 1);
  saver.stop();
  server.mode = 'up';
  server.journal = ['a', 'x', 'y'];
  expect(await recoverPending(id)).toEqual({ kind: 'went back' });
  const back = (await look(true))!;
  expect(back).toMatchObject({ revision: 3, changes: [{ id: change.id }] });
  await giveAgain(id, back, true);
  expect(server.journal).toEqual(['a', 'x', 'y', change.id]);
});

test('while the server cannot be reached all stays here', async () => {
  await saved(3);
  server.journal.length = 1;
  const back = (await look())!;
  server.mode = 'down';
  await expect(giveAgain(id, back, true)).rejects.toThrow('reached');
  server.mode = 'up';
  expect((await look())!.changes).toHaveLength(2);
});

test('of what was acknowledged a bounded amount is kept, the newest', async () => {
  for (let i = 1; i <= 150; i++)
    await keepSent([], [{ drawing: id, revision: i, id: `${i}`, text: 'x'.repeat(200_000), schema: 3 }]);
  const kept = (await sentOf(id)).map((k) => k.sent.revision);
  expect(kept.at(-1)).toBe(150);
  expect(kept.length).toBeGreaterThan(50);
  expect(kept.length).toBeLessThan(120);
  expect(kept).toEqual(Array.from({ length: kept.length }, (_, i) => 151 - kept.length + i));
});

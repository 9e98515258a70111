import 'fake-indexeddb/auto';
import type { Change } from '@/core';
import { onGrid } from '@/core/drawing/grid';
import { FakeServer } from '../test/fakeServer';
import { madeChanges, until } from '../test/madeChanges';
import { asidesOf, pendingOf } from './pending';
import { forgetStuck, recoverPending, Saver, type SaveState } from './saver';

let server: FakeServer;
let states: SaveState[];
let told: string[];
let count = 0;
let id = '';

beforeEach(() => {
  server = new FakeServer();
  globalThis.fetch = server.fetch as typeof fetch;
  states = [];
  told = [];
  id = `drawing-${++count}`;
});

const newSaver = (revision = 0) =>
  new Saver(id, revision, {
    onState: (s) => states.push(s),
    onRefused: () => told.push('refused'),
    onWentBack: () => told.push('went back'),
    onAside: ({ title, count: n }) => told.push(`${n} in ${title}`),
    onStuck: ({ why, changes: left }) => told.push(`${left.length} stuck: ${why}`),
  });

const changes = (n: number): Change[] => madeChanges(n, `${id}-`);

test('changes arrive in their order, and leave the browser when acknowledged', async () => {
  const saver = newSaver();
  const made = changes(7);
  made.forEach((c) => saver.push(c));
  await until(() => states.at(-1)?.kind === 'saved');
  expect(server.journal).toEqual(made.map((c) => c.id));
  expect(states[0]).toEqual({ kind: 'sending', waiting: 1, revision: 0 });
  expect(states.at(-1)).toEqual({ kind: 'saved', revision: 7 });
  await until(async () => (await pendingOf(id)).length === 0);
});

test('while the server is away changes wait here, and go when it is back', async () => {
  const saver = newSaver();
  server.mode = 'down';
  const [a, b, c] = changes(3);
  saver.push(a);
  saver.push(b);
  await until(() => states.at(-1)?.kind === 'waiting');
  expect(states.at(-1)).toMatchObject({ waiting: 2 });
  expect((await pendingOf(id)).map((p) => [p.pending.base, p.pending.change.id])).toEqual([
    [0, a.id],
    [1, b.id],
  ]);
  server.mode = 'broken';
  saver.push(c);
  server.mode = 'up';
  await until(() => states.at(-1)?.kind === 'saved');
  expect(server.journal).toEqual([a.id, b.id, c.id]);
});

test('an answer that is lost does not make a change twice', async () => {
  const saver = newSaver();
  server.mode = 'answer lost';
  const [a, b] = changes(2);
  saver.push(a);
  await until(() => states.at(-1)?.kind === 'waiting');
  server.mode = 'up';
  saver.push(b);
  await until(() => states.at(-1)?.kind === 'saved');
  expect(server.journal).toEqual([a.id, b.id]);
});

test('a server that takes a change and never answers is asked again after a while; the change is made once', async () => {
  const { setTimeout: later } = globalThis;
  const timers = jest
    .spyOn(globalThis, 'setTimeout')
    .mockImplementation(((run: () => void, ms = 0) => later(run, ms > 30_000 ? 20 : ms)) as typeof setTimeout);
  const saver = newSaver();
  server.mode = 'silent';
  const [a, b] = changes(2);
  saver.push(a);
  await until(() => states.at(-1)?.kind === 'waiting');
  expect(server.journal).toEqual([a.id]);
  timers.mockRestore();
  server.mode = 'up';
  saver.push(b);
  await until(() => states.at(-1)?.kind === 'saved');
  expect(server.journal).toEqual([a.id, b.id]);
});

test('what the server refuses is kept as a drawing of its own, all of it', async () => {
  server.journal = ['someone-else'];
  const saver = newSaver();
  const made = changes(3);
  made.forEach((c) => saver.push(c));
  await until(() => told.length > 1);
  expect(told).toEqual(['refused', '3 in Test (kept aside)']);
  expect(server.aside).toEqual([made.map((c) => c.id)]);
  expect(await pendingOf(id)).toEqual([]);
});

test('what is put aside and lost at once is put aside again, and let go of once a copy of it is here', async () => {
  server.journal = ['someone-else'];
  server.losesAsides = 1;
  const saver = newSaver();
  const made = changes(3);
  made.slice(0, 2).forEach((c) => saver.push(c));
  await until(() => server.aside.length === 1 && states.at(-1)?.kind === 'waiting');
  expect((await pendingOf(id)).map((p) => p.pending.change.id)).toEqual(made.slice(0, 2).map((c) => c.id));
  await until(() => told.length > 1);
  expect(told).toEqual(['refused', '2 in Test (kept aside)']);
  expect(server.drawings.get('new')).toEqual(made.slice(0, 2).map((c) => c.id));
  expect(await pendingOf(id)).toEqual([]);
  const [copy] = await asidesOf(id);
  expect(new TextDecoder().decode(copy.bytes)).toBe(`${made[0].id} ${made[1].id}`);
});

test('a piece that is refused aside does not take along what is aside already', async () => {
  server.journal = ['someone-else'];
  const saver = newSaver();
  const made = changes(3);
  server.whileAside = () => {
    server.whileAside = () => {};
    saver.push(made[2]);
    server.refusedAside = made[2].id;
  };
  made.slice(0, 2).forEach((c) => saver.push(c));
  await until(() => told.length > 1);
  expect(told).toEqual(['refused', '1 stuck: no (422)']);
  expect(server.drawings.get('new')).toEqual(made.slice(0, 2).map((c) => c.id));
  expect((await pendingOf(id)).map((p) => [p.pending.change.id, p.pending.stuck])).toEqual([[made[2].id, 'no (422)']]);
});

test('what is made while others are put aside is put aside as well', async () => {
  server.journal = ['someone-else'];
  const saver = newSaver();
  const made = changes(4);
  server.whileAside = () => {
    server.whileAside = () => {};
    made.slice(2).forEach((c) => saver.push(c));
  };
  made.slice(0, 2).forEach((c) => saver.push(c));
  await until(() => told.length > 1);
  expect(told).toEqual(['refused', '4 in Test (kept aside)']);
  expect(server.drawings.get('new')).toEqual(made.map((c) => c.id));
  expect(await pendingOf(id)).toEqual([]);
});

test('what is too large for one request goes in several, to the drawing and aside', async () => {
  const made = changes(9);
  server.mostBytes = 3.5 * JSON.stringify(made[0]).length;
  const saver = newSaver();
  made.forEach((c) => saver.push(c));
  await until(() => states.at(-1)?.kind === 'saved');
  expect(server.journal).toEqual(made.map((c) => c.id));
  const other = newSaver();
  server.journal = ['someone-else'];
  made.forEach((c) => other.push(c));
  await until(() => told.length > 1);
  expect(told).toEqual(['refused', '9 in Test (kept aside)']);
  expect(server.aside[0].length).toBeLessThan(9);
  expect(server.drawings.get('new')).toEqual(made.map((c) => c.id));
});

test.each(['busy', 'empty answer', 'broken'] as const)('a server that is %s is asked again', async (mode) => {
  const saver = newSaver();
  server.mode = mode;
  const [a] = changes(1);
  saver.push(a);
  await until(() => states.at(-1)?.kind === 'waiting');
  expect(told).toEqual([]);
  server.mode = 'up';
  await until(() => states.at(-1)?.kind === 'saved');
  expect(server.journal).toEqual([a.id]);
});

test('what cannot even be put aside stays here, is told with all of it, and is not sent again', async () => {
  server.journal = ['someone-else'];
  server.asideStatus = 422;
  const saver = newSaver();
  const made = changes(3);
  made.forEach((c) => saver.push(c));
  await until(() => told.length > 1);
  expect(told).toEqual(['refused', '3 stuck: no (422)']);
  const asked = server.requests;
  const left = await recoverPending(id);
  expect(left).toMatchObject({ kind: 'stuck', why: 'no (422)', base: 0 });
  expect('changes' in left && left.changes.map((c) => c.id)).toEqual(made.map((c) => c.id));
  expect(server.requests).toBe(asked);
  await forgetStuck(id);
  expect(await recoverPending(id)).toEqual({ kind: 'none' });
});

test('without a store of its own a browser still saves, and says that it keeps nothing', async () => {
  const had = globalThis.indexedDB;
  const { IDBFactory } = await import('fake-indexeddb');
  const none = new IDBFactory();
  none.open = () => {
    throw new DOMException('not here', 'SecurityError');
  };
  jest.resetModules();
  globalThis.indexedDB = none;
  const fresh = (await import('./saver')) as typeof import('./saver');
  expect(await fresh.recoverPending(id)).toEqual({ kind: 'no store' });
  const saver = new fresh.Saver(id, 0, {
    onState: (s) => states.push(s),
    onWentBack: () => undefined,
    onRefused: () => {},
    onAside: () => {},
    onStuck: () => {},
  });
  const [a] = changes(1);
  saver.push(a);
  await until(() => states.at(-1)?.kind === 'saved');
  expect(server.journal).toEqual([a.id]);
  globalThis.indexedDB = had;
});

describe('the next visit', () => {
  /** A visit that ends while the server is away. */
  async function leaveBehind(n: number): Promise<Change[]> {
    server.mode = 'down';
    const saver = newSaver();
    const made = changes(n);
    made.forEach((c) => saver.push(c));
    await until(async () => (await pendingOf(id)).length === n);
    saver.stop();
    server.mode = 'up';
    return made;
  }

  test('finds nothing', async () => expect(await recoverPending(id)).toEqual({ kind: 'none' }));

  test('sends what the last left behind', async () => {
    const made = await leaveBehind(4);
    expect(await recoverPending(id)).toEqual({ kind: 'sent', count: 4 });
    expect(server.journal).toEqual(made.map((c) => c.id));
    expect(await pendingOf(id)).toEqual([]);
  });

  test('keeps it aside when the drawing has gone on without it', async () => {
    const made = await leaveBehind(2);
    server.journal = ['x', 'y'];
    expect(await recoverPending(id)).toEqual({ kind: 'aside', id: 'new', title: 'Test (kept aside)', count: 2 });
    expect(server.aside).toEqual([made.map((c) => c.id)]);
  });

  test('sends what an earlier program kept as it is written now', async () => {
    const { openDB } = await import('idb');
    await pendingOf(id);
    const db = await openDB('yellow-quill');
    const point = { x: 1 / 3, y: 2 };
    const line = {
      id: 'n',
      style: { colour: '#112233', width: 2, cap: 'round', join: 'round', fill: null },
      runs: [{ closed: false, nodes: [{ point, in: null, out: null, kind: 'corner' }] }],
    };
    const change = { id: `${id}-old`, label: 'Draw', steps: [{ step: 'insertLine', sheet: 's0', index: 0, line }] };
    await db.add('pending', { drawing: id, base: 0, change });
    await db.add('pending', { drawing: `${id}x`, base: 0, change, schema: 99 });
    db.close();
    const bodies: string[] = [];
    const { fetch } = server;
    globalThis.fetch = ((path: string, init: RequestInit) => {
      bodies.push(String(init.body));
      return fetch(path, init);
    }) as typeof globalThis.fetch;
    expect(await recoverPending(id)).toEqual({ kind: 'sent', count: 1 });
    const [{ x }] = JSON.parse(bodies[0]).changes[0].steps[0].steps[0].line.runs[0].nodes.map(
      (n: { point: object }) => n.point,
    );
    expect([x, Math.abs(x - 1 / 3) < 1e-6]).toEqual([onGrid(1 / 3), true]);
    expect(await recoverPending(`${id}x`)).toMatchObject({
      kind: 'stuck',
      why: expect.stringContaining('later program'),
    });
  });

  test('sets by what the server will not have in any way', async () => {
    const made = await leaveBehind(2);
    server.journal = ['x', 'y'];
    server.asideStatus = 404;
    expect(await recoverPending(id)).toEqual({ kind: 'stuck', why: 'no (404)', base: 0, changes: made });
  });

  test('loses nothing while the server stays away', async () => {
    await leaveBehind(2);
    server.mode = 'down';
    expect(await recoverPending(id)).toMatchObject({ kind: 'waiting', count: 2 });
    expect(await pendingOf(id)).toHaveLength(2);
    server.mode = 'up';
    expect(await recoverPending(id)).toEqual({ kind: 'sent', count: 2 });
  });
});

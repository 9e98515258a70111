import 'fake-indexeddb/auto';
import { applyChange, type Change, type Drawing } from '@/core';
import { moveLines } from '@/core/change/lineEdits';
import { wanderingDrawing } from '@/core/test/drawings';
import { pendingOf } from './pending';
import { recoverPending, Saver, type SaveState } from './saver';

/** A server that keeps a journal as ours does, and can be made to fail. */
class FakeServer {
  journal: string[] = [];
  aside: string[][] = [];
  mode: 'up' | 'down' | 'answer lost' | 'broken' = 'up';
  requests = 0;

  readonly fetch = async (path: string, init: RequestInit): Promise<Response> => {
    this.requests++;
    if (this.mode === 'down') throw new TypeError('no connection');
    if (this.mode === 'broken') return Response.json({ error: { code: 'failed', message: 'no' } }, { status: 500 });
    const { base, changes } = JSON.parse(String(init.body)) as { base: number; changes: Change[] };
    const ids = changes.map((c) => c.id);
    if (path.endsWith('/aside')) {
      this.aside.push(ids);
      return Response.json({ id: 'new', title: 'Test (kept aside)' }, { status: 201 });
    }
    const known = ids.filter((id, i) => this.journal[base + i] === id).length;
    if (base + known !== this.journal.length)
      return Response.json({ error: { code: 'conflict', message: 'not the newest' } }, { status: 409 });
    this.journal.push(...ids.slice(known));
    if (this.mode === 'answer lost') throw new TypeError('connection lost');
    return Response.json({ revision: this.journal.length });
  };
}

let server: FakeServer;
let states: SaveState[];
let told: string[];
let count = 0;
let id = '';
const start: Drawing = wanderingDrawing(3, 2, 1);

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
    onAside: ({ title, count: n }) => told.push(`${n} in ${title}`),
    onStuck: (why) => told.push(why),
  });

function changes(n: number): Change[] {
  let now = start;
  return Array.from({ length: n }, (_, i) => {
    const change = { id: `${id}-${i}`, ...moveLines(now, ['l0'], { x: 1, y: 0 }) };
    now = applyChange(now, change);
    return change;
  });
}

const until = async (holds: () => boolean | Promise<boolean>): Promise<void> => {
  for (let i = 0; i < 400; i++) {
    if (await holds()) return;
    await new Promise((r) => setTimeout(r, 10));
  }
  throw new Error('it never came about');
};

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

test('what the server refuses is kept as a drawing of its own, all of it', async () => {
  server.journal = ['someone-else'];
  const saver = newSaver();
  const made = changes(3);
  made.forEach((c) => saver.push(c));
  await until(() => told.length > 0);
  expect(told).toEqual(['3 in Test (kept aside)']);
  expect(server.aside).toEqual([made.map((c) => c.id)]);
  expect(await pendingOf(id)).toEqual([]);
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

  test('loses nothing while the server stays away', async () => {
    await leaveBehind(2);
    server.mode = 'down';
    await expect(recoverPending(id)).rejects.toMatchObject({ status: 0 });
    expect(await pendingOf(id)).toHaveLength(2);
  });
});

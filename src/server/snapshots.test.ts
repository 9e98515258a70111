import { linesOf } from '@/core/drawing/items';
import { statSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { applyChange, type Change, type Drawing } from '@/core';
import { unpacked } from '@/core/formats/packed';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { POST as append, GET as history } from '../app/api/drawings/[id]/changes/route';
import { POST as copy } from '../app/api/drawings/[id]/duplicate/route';
import { GET as rows } from '../app/api/drawings/[id]/journal/route';
import { GET as openPacked } from '../app/api/drawings/[id]/packed/route';
import { GET as open } from '../app/api/drawings/[id]/route';
import { database } from './database';
import { keepDrawing } from './drawings';
import { appendChanges } from './append';
import { forget, stateOf } from './journal';
import { dataFolder } from './place';
import { outgrown, snapshotsTaken, snapshotsUpTo } from './snapshots';
import { nodeMoves, start } from './test/nodeMoves';

freshDataFolder();

const client = () => database().$client;
const spoil = (id: string, revision: number, body: string): void =>
  void client().prepare('update journal set body = ? where drawing_id = ? and revision = ?').run(body, id, revision);

describe('snapshots', () => {
  beforeEach(() => void jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'performance'] }));
  afterEach(() => void jest.useRealTimers());

  test('are taken when the hand rests, packed, and never in the way of a save; the small ones take little room', async () => {
    const { id } = keepDrawing('A', start);
    const { changes, last } = nodeMoves(3_000);
    for (let i = 0; i < 3_000; i += 100) {
      appendChanges(id, i, changes.slice(i, i + 100));
      expect(snapshotsUpTo(id, i + 100)).toHaveLength(i < 1_100 ? 1 : snapshotsUpTo(id, i).length);
      if (i % 1_100 === 1_000) {
        jest.advanceTimersByTime(2_000);
        await snapshotsTaken();
      }
    }
    jest.advanceTimersByTime(2_000);
    await snapshotsTaken();
    expect(snapshotsUpTo(id, 3_000)).toEqual([3_000, 2_200, 1_100, 0]);
    forget(id);
    expect(stateOf(id).drawing).toEqual(last);
    for (const r of [1, 1_099, 1_100, 1_101, 2_999])
      expect(stateOf(id, r).drawing).toEqual(changes.slice(0, r).reduce(applyChange, start));
    const { bytes } = client().prepare('select sum(length(body)) bytes from journal where drawing_id = ?').get(id) as {
      bytes: number;
    };
    expect(bytes / 3_000).toBeLessThan(700);
    client().pragma('wal_checkpoint(TRUNCATE)');
    expect(statSync(path.join(dataFolder(), 'yellow-quill.sqlite')).size).toBeLessThan(3_000 * 1_200);
  });

  test('are thinned with age: the first and the last stay, and ever fewer in between', () => {
    let list = [0];
    for (let r = 1_000; r <= 500_000; r += 1_000) {
      list = [...list, r];
      const gone = new Set(outgrown(list));
      list = list.filter((x) => !gone.has(x));
      expect(list[0]).toBe(0);
      expect(list.slice(-2)).toEqual(r === 1_000 ? [0, 1_000] : [r - 1_000, r]);
    }
    expect(list.length).toBeLessThan(32);
    // Wherever one goes back to, a snapshot lies no further before it than about as far as it lies from the newest.
    for (let r = 0; r < 500_000; r += 777) {
      const before = list.findLast((x) => x <= r)!;
      expect(r - before).toBeLessThanOrEqual(Math.max(2_000, 1.5 * (500_000 - r)));
    }
  });

  test('of large ones fewer are kept: the first, the last two, and ever sparser ones between', () => {
    let list = [0];
    for (let r = 1_000; r <= 50_000; r += 1_000) {
      list.push(r);
      const gone = new Set(outgrown(list, 4_400_000));
      list = list.filter((x) => !gone.has(x));
      expect(list.length).toBeLessThanOrEqual(6);
    }
    expect(list).toHaveLength(5);
    expect([list[0], ...list.slice(-2)]).toEqual([0, 49_000, 50_000]);
  });
});

/** What the route of packed drawings says. */
async function packedOf(id: string): Promise<{ drawing: Drawing; title: string; revision: number }> {
  const { response } = await call(openPacked, 'GET', { id });
  const about = JSON.parse(decodeURIComponent(response.headers.get('x-drawing')!)) as {
    title: string;
    revision: number;
  };
  return { ...about, drawing: unpacked(new Uint8Array(await response.arrayBuffer())) };
}

describe('a drawing is opened packed', () => {
  test.each([
    'from the newest snapshot',
    'from one and the changes since',
    'as it is in memory',
    'where JSON was kept',
  ])('%s', async (where) => {
    const { id } = keepDrawing('Größe, 100 %', start);
    const { changes, last } = nodeMoves(8);
    if (where !== 'from the newest snapshot') appendChanges(id, 0, changes);
    if (where !== 'as it is in memory') forget(id);
    if (where === 'where JSON was kept')
      client()
        .prepare('update snapshots set body = ? where drawing_id = ?')
        .run(gzipSync(JSON.stringify(start)), id);
    expect(await packedOf(id)).toEqual({
      id,
      title: 'Größe, 100 %',
      stage: 'prepare',
      binned: false,
      revision: where === 'from the newest snapshot' ? 0 : 8,
      drawing: where === 'from the newest snapshot' ? start : last,
      ...(where === 'from the newest snapshot' ? {} : { last: changes.at(-1)!.id }),
    });
  });

  test('from a damaged newest snapshot it is not: the journal does', async () => {
    const { id } = keepDrawing('A', start);
    const { changes, last } = nodeMoves(4);
    appendChanges(id, 0, changes);
    const whole = client().prepare('select body from snapshots where drawing_id = ?').get(id) as { body: Buffer };
    client()
      .prepare('insert into snapshots (drawing_id, revision, body) values (?, 4, ?)')
      .run(id, whole.body.subarray(0, 200));
    forget(id);
    expect(await packedOf(id)).toMatchObject({ revision: 4, drawing: last });
  });
});

describe('what is damaged', () => {
  const made = (title: string): { id: string; changes: Change[]; last: Drawing } => {
    const { id } = keepDrawing(title, start);
    const { changes, last } = nodeMoves(8);
    appendChanges(id, 0, changes);
    forget(id);
    return { id, changes, last };
  };

  test.each([
    ['no JSON', (id: string) => spoil(id, 5, '{"id":')],
    ['no change', (id: string) => spoil(id, 5, '7')],
    [
      'one that does not fit',
      (id: string) => spoil(id, 5, '{"id":"x","label":"x","steps":[{"step":"moveSheet","from":9,"to":9}]}'),
    ],
    ['of an unknown kind', (id: string) => spoil(id, 5, '{"id":"x","label":"x","steps":[{"step":"shake"}]}')],
    [
      'missing',
      (id: string) => void client().prepare('delete from journal where drawing_id = ? and revision = 5').run(id),
    ],
    [
      'of a later program',
      (id: string) =>
        void client().prepare('update journal set schema = 99 where drawing_id = ? and revision = 5').run(id),
    ],
  ])(
    'a change that is %s: all before it opens, what came after can be saved, nothing is written over',
    async (_, harm) => {
      const { id, changes } = made('Damaged');
      harm(id);
      const answer = await call(open, 'GET', { id });
      expect(answer.status).toBe(200);
      expect(answer.json).toMatchObject({
        revision: 4,
        damaged: { from: 5, to: 8, why: expect.stringContaining('change 5') },
      });
      expect((answer.json as { drawing: Drawing }).drawing).toEqual(changes.slice(0, 4).reduce(applyChange, start));
      const packed = await packedOf(id);
      expect(packed).toMatchObject({ revision: 4, damaged: { from: 5, to: 8 } });
      expect(packed.drawing).toEqual((answer.json as { drawing: Drawing }).drawing);
      const more = await call(append, 'POST', { id }, { body: { base: 8, changes: [{ ...changes[0], id: 'more' }] } });
      expect([more.status, more.json]).toMatchObject([409, { error: { code: 'damaged', revision: 4 } }]);
      const kept = (await call(rows, 'GET', { id }, { query: '?from=5' })).json as { rows: { revision: number }[] };
      expect(kept.rows.map((r) => r.revision).at(-1)).toBe(8);
      const copied = await call(copy, 'POST', { id }, { query: '?revision=4' });
      expect(copied.status).toBe(201);
      const { id: other } = copied.json as { id: string };
      expect(stateOf(other).drawing).toEqual(changes.slice(0, 4).reduce(applyChange, start));
    },
  );

  test('a snapshot: an older one and the journal do', () => {
    const { id, last } = made('Snapshot');
    client()
      .prepare('insert into snapshots (drawing_id, revision, body) values (?, 6, ?)')
      .run(id, Buffer.from([0x1f, 0x8b, 1, 2, 3]));
    expect(stateOf(id).drawing).toEqual(last);
    client().prepare('update snapshots set body = ? where drawing_id = ?').run(Buffer.from('{'), id);
    forget(id);
    expect(() => stateOf(id)).toThrow(expect.objectContaining({ status: 409, code: 'damaged' }));
  });
});

describe('the history', () => {
  test('is read in stretches, back to the first change', async () => {
    const { id } = keepDrawing('History', start);
    const { changes } = nodeMoves(25);
    appendChanges(id, 0, changes);
    const stretch = async (before: number) =>
      (await call(history, 'GET', { id }, { query: `?before=${before}&most=10` })).json as {
        from: number;
        changes: Change[];
      };
    const read: Change[] = [];
    for (let before = 26; before > 1;) {
      const { from, changes: some } = await stretch(before);
      read.unshift(...some);
      before = from;
    }
    expect(read).toEqual(JSON.parse(JSON.stringify(changes)));
    expect((await call(history, 'GET', { id: 'none' }, { query: '?before=9' })).status).toBe(404);
    expect((await call(history, 'GET', { id }, { query: '?before=x' })).status).toBe(400);
  });
});

test('a full disk and a folder that cannot be written to are told as such', async () => {
  const { id } = keepDrawing('Full', start);
  const big = { id: 'big', label: 'x'.repeat(100), steps: [] as unknown[] };
  big.steps = Array.from({ length: 60 }, (_, i) => ({
    step: 'insertItem',
    at: { sheet: 's0', index: 0 },
    item: { ...linesOf(start.sheets[0])[0], id: `b${i}` },
  }));
  const pages = client().pragma('page_count', { simple: true }) as number;
  client().pragma(`max_page_count = ${pages}`);
  const full = await call(append, 'POST', { id }, { body: { base: 0, changes: [big] } });
  expect([full.status, full.json]).toMatchObject([507, { error: { code: 'disk-full' } }]);
  client().pragma('max_page_count = 1000000');
  client().pragma('query_only = 1');
  const readOnly = await call(append, 'POST', { id }, { body: { base: 0, changes: [big] } });
  expect([readOnly.status, readOnly.json]).toMatchObject([503, { error: { code: 'read-only' } }]);
  client().pragma('query_only = 0');
  expect((await call(append, 'POST', { id }, { body: { base: 0, changes: [big] } })).json).toEqual({ revision: 1 });
});

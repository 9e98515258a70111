/** @jest-environment ./src/server/test/postgresEnvironment.ts */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import fc from 'fast-check';
import type { Change, Drawing } from '@/core';
import { database } from '../database';
import { forgetAll } from '../journal';
import { Problem } from '../problem';
import { freshDataFolder } from '../test/dataFolder';
import { nodeMoves, start } from '../test/nodeMoves';
import { journalHere, type Journal } from './journals';
import { PgJournal } from './postgres/pgJournal';

freshDataFolder();

const place = mkdtempSync(path.join(tmpdir(), 'yellow-quill-postgres-'));
/** A snapshot every ten changes, so that some are taken. */
const opened = () => new PgJournal(drizzle(engine), 10);
let engine: PGlite;
let there: PgJournal;
beforeAll(async () => {
  engine = await openPostgres(place);
  await migrate(drizzle(engine), { migrationsFolder: 'drizzle-postgres' });
  there = opened();
});
afterAll(async () => {
  await there.settled();
  await engine.close();
  rmSync(place, { recursive: true, force: true });
});

const { changes, last } = nodeMoves(35);
const others = nodeMoves(3, start, 5).changes.map((c) => ({ ...c, id: `other-${c.id}` }));
/** A drawing after the first so many changes. */
const after = (count: number): Drawing => nodeMoves(count).last;

const codeOf = (asked: Promise<unknown>): Promise<string> =>
  asked.then(
    () => 'done',
    (error: unknown) => (error instanceof Problem ? `${error.status} ${error.code}` : String(error)),
  );

describe.each(['here', 'in PostgreSQL'])('a journal %s', (where) => {
  const journal = (): Journal => (where === 'here' ? journalHere : there);
  /** As another process finds it. */
  const anew = (): Journal => {
    if (where === 'here') forgetAll();
    return where === 'here' ? journalHere : opened();
  };

  test('keeps changes in their order; each revision, and the history in stretches, is had back by whoever opens it', async () => {
    const id = await journal().begin('Größe', start);
    for (let at = 0; at < 35; at += 7)
      expect(await journal().append({ id, base: at, changes: changes.slice(at, at + 7) })).toEqual({
        revision: at + 7,
      });
    for (const journal of [anew(), anew()]) {
      expect(await journal.state(id)).toEqual({ revision: 35, drawing: last });
      for (const r of [0, 1, 9, 10, 11, 28])
        expect(await journal.state(id, r)).toEqual({ revision: r, drawing: after(r) });
    }
    expect(await journal().history(id, 36, 12)).toEqual({ from: 24, changes: changes.slice(23) });
    expect(await journal().history(id, 3, 12)).toEqual({ from: 1, changes: changes.slice(0, 2) });
  });

  test('refuses what is not made on the newest, does not fit, was made before or on another past: all of it, with nothing kept', async () => {
    const id = await journal().begin('A', start);
    await journal().append({ id, base: 0, changes: changes.slice(0, 3) });
    const asked: [string, number, Change[], string?][] = [
      ['409 conflict', 0, others],
      ['409 conflict', 9, others],
      ['409 another-past', 3, [changes[3]], 'other'],
      ['422 does-not-fit', 3, [changes[3], others[0]]],
      ['422 used-before', 3, [changes[3], { ...changes[4], id: 'c1' }]],
      ['422 used-before', 3, [changes[3], { ...changes[4], id: changes[3].id }]],
    ];
    for (const [code, base, list, last] of asked)
      expect(await codeOf(journal().append({ id, base, changes: list, after: last }))).toBe(code);
    expect(await codeOf(journal().append({ id: 'none', base: 0, changes: others }))).toBe('404 not-found');
    expect(await codeOf(journal().state('none'))).toBe('404 not-found');
    expect(await codeOf(journal().state(id, 4))).toBe('404 not-found');
    expect(await anew().state(id)).toEqual({ revision: 3, drawing: after(3) });
  });

  test('makes what is sent again once, and goes on with what is new of it', async () => {
    const id = await journal().begin('A', start);
    const sent = { id, base: 0, changes: changes.slice(0, 4) };
    await journal().append(sent);
    expect(await journal().append(sent)).toEqual({ revision: 4 });
    expect(await journal().append({ ...sent, changes: changes.slice(0, 6) })).toEqual({ revision: 6 });
    expect(await journal().append({ id, base: 2, changes: changes.slice(2, 4), after: 'c1' })).toEqual({ revision: 4 });
    expect(await anew().state(id)).toEqual({ revision: 6, drawing: after(6) });
  });

  test('of two that ask at once one is taken', async () => {
    const id = await journal().begin('A', start);
    const both = [changes[0], others[0]].map((c) => codeOf(journal().append({ id, base: 0, changes: [c] })));
    expect((await Promise.all(both)).toSorted()).toEqual(['409 conflict', 'done']);
    expect((await anew().state(id)).revision).toBe(1);
  });
});

test('whatever is asked of both, they answer the same, and their digests are the same', async () => {
  const anAppend = fc.record({
    base: fc.nat(9),
    from: fc.nat(9),
    count: fc.integer({ min: 1, max: 4 }),
    after: fc.option(fc.constantFrom('c0', 'c2', 'other-c0'), { nil: undefined }),
    list: fc.constantFrom(changes, changes, changes, others),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(anAppend, { minLength: 1, maxLength: 8 }), async (asked) => {
      const ids = [await journalHere.begin('A', start), await there.begin('A', start)];
      for (const { base, from, count, after, list } of asked) {
        const sent = { base, changes: list.slice(from, from + count), after };
        if (sent.changes.length === 0) continue;
        const [a, b] = [journalHere, there].map((j, i) =>
          j.append({ id: ids[i], ...sent }).catch((e: Problem) => [e.status, e.code, e.message, e.details]),
        );
        expect(await b).toEqual(await a);
      }
      const [a, b] = await Promise.all([journalHere.state(ids[0]), opened().state(ids[1])]);
      expect(b).toEqual(a);
      const here = database()
        .$client.prepare('select digest from journal where drawing_id = ? order by revision')
        .pluck()
        .all(ids[0]);
      const kept = await engine.query<{ digest: string }>(
        'select digest from journal where drawing_id = $1 order by revision',
        [ids[1]],
      );
      expect(kept.rows.map((r) => r.digest)).toEqual(here);
    }),
    { numRuns: 40 },
  );
});

test('what PostgreSQL keeps outlives the engine; a snapshot that is damaged or of another past is not used', async () => {
  const id = await there.begin('A', start);
  for (let at = 0; at < 35; at += 5) await there.append({ id, base: at, changes: changes.slice(at, at + 5) });
  await there.settled();
  await engine.close();
  engine = await openPostgres(place);
  there = opened();
  const revisions = async () =>
    (
      await engine.query<{ revision: number }>(
        'select revision from snapshots where drawing_id = $1 order by revision',
        [id],
      )
    ).rows.map((r) => r.revision);
  expect(await revisions()).toEqual([0, 10, 20, 30]);
  expect(await there.state(id)).toEqual({ revision: 35, drawing: last });
  await engine.query(
    `update snapshots set body = (select body from snapshots where drawing_id = $1 and revision = 0), digest = 'x'
     where drawing_id = $1 and revision = 30`,
    [id],
  );
  await engine.query(`update snapshots set body = 'no' where drawing_id = $1 and revision = 20`, [id]);
  expect(await opened().state(id)).toEqual({ revision: 35, drawing: last });
  await engine.query(`update journal set body = '{' where drawing_id = $1 and revision = 33`, [id]);
  expect(await codeOf(opened().state(id))).toBe('409 damaged');
  expect(await opened().state(id, 32)).toEqual({ revision: 32, drawing: after(32) });
  expect((await opened().history(id, 36, 9)).from).toBe(34);
});

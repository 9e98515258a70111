import Database from 'better-sqlite3';
import path from 'node:path';
import { applyChange, type Change } from '@/core';
import { moveLines, removeLines } from '@/core/edits/lines';
import { wanderingDrawing } from '@/core/test/drawings';
import { closeDatabase, database } from './database';
import {
  binDrawing,
  cardOf,
  deleteForGood,
  duplicateDrawing,
  keepAside,
  keepDrawing,
  listDrawings,
  updateCard,
} from './drawings';
import { appendChanges, appendSoon } from './append';
import { forget, revisionAt, stateOf } from './journal';
import { dataFolder } from './place';
import { freshDataFolder } from './test/dataFolder';
import { keepVersion, listVersions, restoreVersion } from './versions';

freshDataFolder();

const start = wanderingDrawing(6, 3, 5);

/** `count` changes that follow each other from `start`. */
function series(count: number, name = 'c'): Change[] {
  let now = start;
  return Array.from({ length: count }, (_, i) => {
    const change = { id: `${name}${i}`, ...moveLines(now, [`l${i % 6}`], { x: 1, y: i }) };
    now = applyChange(now, change);
    return change;
  });
}

test('changes are on the disk when acknowledged: another connection and a restart see them', () => {
  const { id } = keepDrawing('A', start);
  const changes = series(3);
  expect(appendChanges(id, 0, changes)).toEqual({ revision: 3 });
  const other = new Database(path.join(dataFolder(), 'yellow-quill.sqlite'), { readonly: true });
  expect(other.prepare('select count(*) n from journal where drawing_id = ?').get(id)).toEqual({ n: 3 });
  expect(other.pragma('journal_mode', { simple: true })).toBe('wal');
  other.close();
  closeDatabase();
  forget(id);
  expect(stateOf(id)).toEqual({ revision: 3, drawing: changes.reduce(applyChange, start) });
});

test('every revision can be gone back to, across snapshots', () => {
  const { id } = keepDrawing('B', start);
  const changes = series(230);
  for (let i = 0; i < 230; i += 23) appendChanges(id, i, changes.slice(i, i + 23));
  forget(id);
  for (const revision of [0, 1, 99, 100, 101, 200, 229, 230]) {
    expect(stateOf(id, revision).drawing).toEqual(changes.slice(0, revision).reduce(applyChange, start));
  }
  expect(() => stateOf(id, 231)).toThrow('no such revision');
});

test('a wrong base is refused with 409, a change that does not fit with 422, and nothing is kept of either', () => {
  const { id } = keepDrawing('C', start);
  const [a, b] = series(2);
  appendChanges(id, 0, [a]);
  expect(() => appendChanges(id, 0, [{ ...b, id: 'other' }])).toThrow(expect.objectContaining({ status: 409 }));
  expect(() => appendChanges(id, 5, [b])).toThrow(expect.objectContaining({ status: 409 }));
  const gone: Change = {
    id: 'gone',
    label: 'x',
    steps: [{ step: 'setLine', sheet: 's0', id: 'none', before: {}, after: {} }],
  };
  expect(() => appendChanges(id, 1, [b, gone])).toThrow(expect.objectContaining({ status: 422 }));
  forget(id);
  expect(stateOf(id).revision).toBe(1);
});

test('changes sent again after a lost answer are made once, also together with new ones', () => {
  const { id } = keepDrawing('D', start);
  const changes = series(5);
  appendChanges(id, 0, changes.slice(0, 2));
  expect(appendChanges(id, 0, changes.slice(0, 2))).toEqual({ revision: 2 });
  expect(appendChanges(id, 0, changes)).toEqual({ revision: 5 });
  expect(stateOf(id).drawing).toEqual(changes.reduce(applyChange, start));
});

test('what many ask for at once goes to the disk together; each is answered, or refused, by itself', async () => {
  const ids = Array.from({ length: 12 }, (_, i) => keepDrawing(`Many ${i}`, start).id);
  const [a, b] = series(2);
  const asked = ids.flatMap((id, i) => [
    appendSoon({ id, base: 0, changes: [a] }),
    // The second of each waits for the first; one of them comes too late, one is for nothing that is there.
    appendSoon({ id: i === 3 ? 'no-such' : id, base: i === 7 ? 0 : 1, changes: [b] }),
  ]);
  const answers = await Promise.allSettled(asked);
  answers.forEach((answer, k) => {
    const [i, isSecond] = [k >> 1, k % 2 === 1];
    if (isSecond && (i === 3 || i === 7)) expect(answer).toMatchObject({ reason: { status: i === 3 ? 404 : 409 } });
    else expect(answer).toEqual({ status: 'fulfilled', value: { revision: isSecond ? 2 : 1 } });
  });
  for (const [i, id] of ids.entries()) {
    forget(id);
    expect(stateOf(id).revision).toBe(i === 3 || i === 7 ? 1 : 2);
  }
});

test('where the disk refuses, all that went together are refused, and nothing is remembered of them', async () => {
  const ids = [1, 2, 3].map((i) => keepDrawing(`Full ${i}`, start).id);
  const [a] = series(1);
  const client = database().$client;
  client.exec(`create temp trigger full before insert on journal when new.drawing_id = '${ids[1]}'
    begin select raise(abort, 'no room'); end`);
  const answers = await Promise.allSettled(ids.map((id) => appendSoon({ id, base: 0, changes: [a] })));
  expect(answers.map((r) => r.status)).toEqual(['rejected', 'rejected', 'rejected']);
  client.exec('drop trigger full');
  for (const id of ids) expect(stateOf(id).revision).toBe(0);
  expect(await appendSoon({ id: ids[0], base: 0, changes: [a] })).toEqual({ revision: 1 });
});

test('a change that was made on another past is refused', () => {
  const { id } = keepDrawing('D', start);
  const [a, b, c] = series(3);
  appendChanges(id, 0, [a, b], 'whatever');
  expect(() => appendChanges(id, 2, [c], 'other')).toThrow(
    expect.objectContaining({ status: 409, details: { revision: 1 } }),
  );
  expect(appendChanges(id, 2, [c], b.id)).toEqual({ revision: 3 });
});

test('what was sent and answered stays answered, also when others have come since; no id is used twice', () => {
  const { id } = keepDrawing('D', start);
  const changes = series(4);
  appendChanges(id, 0, changes);
  expect(appendChanges(id, 0, changes.slice(0, 2))).toEqual({ revision: 2 });
  expect(stateOf(id).revision).toBe(4);
  const again = { ...changes[0], steps: [] };
  const used = expect.objectContaining({ status: 422, code: 'used-before' });
  expect(() => appendChanges(id, 4, [again])).toThrow(used);
  const twin = { ...again, id: 'twin' };
  expect(() => appendChanges(id, 4, [twin, twin])).toThrow(used);
  expect(appendChanges(id, 4, [twin])).toEqual({ revision: 5 });
});

test('a drawing that was deleted for good says so; one that never was does not', () => {
  const { id } = keepDrawing('Gone', start);
  binDrawing(id, true);
  deleteForGood(id);
  expect(() => cardOf(id)).toThrow(expect.objectContaining({ status: 410 }));
  expect(() => cardOf('never')).toThrow(expect.objectContaining({ status: 404 }));
});

test('a drawing as it was at a moment is the one after the last change until then', () => {
  const { id } = keepDrawing('D', start);
  appendChanges(id, 0, series(3));
  const times = [1_000, 2_000, 3_000];
  times.forEach((at, i) =>
    database()
      .$client.prepare('update journal set at = ? where drawing_id = ? and revision = ?')
      .run(at, id, i + 1),
  );
  expect([999, 1_000, 2_500, 9_000].map((at) => revisionAt(id, at))).toEqual([0, 1, 2, 3]);
});

test('changes that came too late become a drawing of their own', () => {
  const { id } = keepDrawing('E', start, 'trace');
  appendChanges(id, 0, series(3));
  const late: Change = { id: 'late', ...removeLines(start, ['l0']) };
  const aside = keepAside(id, 0, [late]);
  expect(stateOf(aside.id).drawing).toEqual(applyChange(start, late));
  expect(listDrawings().find((d) => d.id === aside.id)).toMatchObject({ title: 'E (kept aside)', stage: 'trace' });
  expect(stateOf(id).revision).toBe(3);
});

test('copies bring the history and the versions along, and go on by themselves; the bin gives back; for good is for good', () => {
  const { id } = keepDrawing('F', start);
  appendChanges(id, 0, series(2));
  keepVersion(id, 'First', 1, 'before the rest');
  const early = duplicateDrawing(id, 1);
  expect(stateOf(early.id)).toEqual(stateOf(id, 1));
  appendChanges(id, 2, [{ id: 'late', ...removeLines(stateOf(id).drawing, ['l0']) }]);
  keepVersion(id, 'Last');
  expect(listVersions(early.id)).toMatchObject([{ name: 'First', note: 'before the rest', revision: 1 }]);
  const copy = duplicateDrawing(id);
  for (let r = 0; r <= 3; r++) expect(stateOf(copy.id, r)).toEqual(stateOf(id, r));
  expect(listVersions(copy.id).map((v) => v.name)).toEqual(['Last', 'First']);
  restoreVersion(copy.id, listVersions(copy.id)[1].id);
  expect(stateOf(copy.id).drawing).toEqual(stateOf(id, 1).drawing);
  expect(stateOf(id).revision).toBe(3);
  updateCard(copy.id, { title: 'G', stage: 'ink' });
  expect(listDrawings().find((d) => d.id === copy.id)).toMatchObject({ title: 'G', stage: 'ink' });
  expect(() => deleteForGood(copy.id)).toThrow(expect.objectContaining({ status: 409 }));
  binDrawing(copy.id, true);
  expect([listDrawings(), listDrawings(true)].map((list) => list.some((d) => d.id === copy.id))).toEqual([false, true]);
  binDrawing(copy.id, false);
  expect(listDrawings().some((d) => d.id === copy.id)).toBe(true);
  binDrawing(copy.id, true);
  deleteForGood(copy.id);
  expect(() => stateOf(copy.id)).toThrow(expect.objectContaining({ status: 404 }));
});

import { cpSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { asc, eq } from 'drizzle-orm';
import { applyChange, drawingSchema, inverseOf, upgradeDrawing, type Change, type Drawing } from '@/core';
import { changeSchema } from '@/core';
import { moveLines } from '@/core/change/lineEdits';
import { upgradedChange } from '@/core/change/upgradeChange';
import { lineOnGrid } from '@/core/drawing/grid';
import { database } from './database';
import { duplicateDrawing, listDrawings } from './drawings';
import { appendChanges, stateOf } from './journal';
import { dataFolder, folder } from './place';
import { journal } from './tables';
import { freshDataFolder } from './test/dataFolder';
import { listVersions, restoreVersion, versionOf } from './versions';

/**
 * Data folders that earlier programs made, one for each number of the schema: everything in them opens, is undone to the
 * start and redone, with the program as it is now.
 */
const old = (number: number): string => path.join(__dirname, 'test', `schema-${number}`);

freshDataFolder();
beforeAll(() => {
  folder();
  cpSync(path.join(old(1), 'yellow-quill.sqlite'), path.join(dataFolder(), 'yellow-quill.sqlite'));
});

const idOf = (title: string): string => listDrawings().find((d) => d.title === title)!.id;

function history(id: string): Change[] {
  const rows = database().select().from(journal).where(eq(journal.drawingId, id)).orderBy(asc(journal.revision)).all();
  return rows.map((r) => upgradedChange(JSON.parse(r.body), r.schema));
}

describe.each(['Everything', 'Before targets'])('%s', (title) => {
  test('opens, sound by the schema of today, at every revision', () => {
    const id = idOf(title);
    const last = stateOf(id);
    expect(last.revision).toBe(history(id).length);
    for (let r = 0; r <= last.revision; r++)
      expect(drawingSchema.safeParse(stateOf(id, r).drawing).error).toBeUndefined();
    for (const change of history(id)) expect(changeSchema.safeParse(change).error).toBeUndefined();
  });

  test('is undone to the start, and redone to the end', () => {
    const id = idOf(title);
    const changes = history(id);
    let now = stateOf(id).drawing;
    for (let r = changes.length; r > 0; r--) {
      now = applyChange(now, inverseOf(changes[r - 1], `u${r}`, 'Undo'));
      expect(now).toEqual(stateOf(id, r - 1).drawing);
    }
    expect(changes.reduce(applyChange, now)).toEqual(stateOf(id).drawing);
  });

  test('goes on: moved in one short step, and back to the last bit', () => {
    const id = duplicateDrawing(idOf(title)).id;
    const { drawing } = stateOf(id);
    const ids = drawing.sheets.flatMap((s) => s.lines.map((l) => l.id));
    const move = { id: 'm', ...moveLines(drawing, ids, { x: 0.1, y: 1 / 3 }) };
    expect(move.steps.map((s) => s.step)).toEqual(['translate']);
    appendChanges(id, 0, [move, inverseOf(move, 'b', 'Undo')]);
    expect(stateOf(id).drawing).toEqual(drawing);
  });
});

test('it is what it was, to a millionth of a page unit', () => {
  const then = JSON.parse(readFileSync(path.join(old(1), 'last.json'), 'utf8')) as Drawing;
  const now = stateOf(idOf('Everything')).drawing;
  const nodes = (d: Drawing) => d.sheets.flatMap((s) => s.lines.flatMap((l) => l.runs.flatMap((r) => r.nodes)));
  nodes(now).forEach((n, i) => {
    expect(Math.abs(n.point.x - nodes(then)[i].point.x)).toBeLessThan(1e-6);
    expect(Math.abs(n.point.y - nodes(then)[i].point.y)).toBeLessThan(1e-6);
  });
  const without = (d: Drawing) => ({
    ...d,
    schema: 0,
    sheets: d.sheets.map((s) => s.lines.map((l) => ({ ...l, runs: 0 }))),
  });
  expect(without(now)).toEqual(without(then));
  expect(now.sheets.every((s) => s.lines.every((l) => lineOnGrid(l) === l))).toBe(true);
});

test('a version of then is gone back to', () => {
  const id = duplicateDrawing(idOf('Everything')).id;
  expect(id).not.toBe(idOf('Everything'));
  const own = idOf('Everything');
  const [version] = listVersions(own);
  const { drawing } = versionOf(own, version.id);
  restoreVersion(own, version.id);
  expect(stateOf(own).drawing).toEqual(drawing);
});

describe('upgradeDrawing', () => {
  const then = JSON.parse(readFileSync(path.join(old(1), 'last.json'), 'utf8')) as Drawing;

  test('takes a drawing of any number', () => {
    const now = upgradeDrawing(then);
    expect(drawingSchema.safeParse(now).success).toBe(true);
    expect(upgradeDrawing(JSON.parse(JSON.stringify(now)))).toEqual(now);
  });

  test.each([
    [null, 'no drawing'],
    [[], 'no drawing'],
    [{}, 'by which number'],
    [{ ...then, schema: 0 }, 'by which number'],
    [{ ...then, schema: 99 }, 'later program'],
    [{ ...then, sheets: 4 }, 'not sound'],
    [{ ...then, page: null }, 'not sound: page'],
    [{ ...then, references: 'none' }, 'not sound: references'],
    [{ ...then, sheets: [{ ...then.sheets[0], lines: [{ id: 'a', runs: 'x' }] }] }, 'not sound'],
    [{ ...then, sheets: [{ ...then.sheets[0], lines: [{ runs: [{ nodes: [null] }] }] }] }, 'not sound'],
  ])('%#: says what is wrong', (raw, words) => {
    expect(() => upgradeDrawing(raw)).toThrow(RangeError);
    expect(() => upgradeDrawing(raw)).toThrow(words);
  });
});

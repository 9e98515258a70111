import { allLines, isGroup, linesOf } from '@/core/drawing/items';
import { groupsAround } from '@/core/drawing/find';
import { cpSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { asc, eq } from 'drizzle-orm';
import { applyChange, drawingSchema, inverseOf, upgradeDrawing, type Change, type Drawing, type Line } from '@/core';
import type { Item } from '@/core/drawing/item';
import { changeSchema } from '@/core';
import { moveLines } from '@/core/edits/lines';
import { upgradedChange } from '@/core/change/upgradeChange';
import { lineOnGrid } from '@/core/drawing/grid';
import { closeDatabase, database } from './database';
import { duplicateDrawing, listDrawings } from './drawings';
import { appendChanges } from './append';
import { stateOf } from './journal';
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

/** Lays the folder that a program of a number made. */
function lay(number: number): void {
  folder();
  closeDatabase();
  for (const left of ['', '-wal', '-shm'])
    rmSync(path.join(dataFolder(), `yellow-quill.sqlite${left}`), { force: true });
  cpSync(path.join(old(number), 'yellow-quill.sqlite'), path.join(dataFolder(), 'yellow-quill.sqlite'));
}

const idOf = (title: string): string => listDrawings().find((d) => d.title === title)!.id;

function history(id: string): Change[] {
  const rows = database().select().from(journal).where(eq(journal.drawingId, id)).orderBy(asc(journal.revision)).all();
  return rows.map((r) => upgradedChange(JSON.parse(r.body), r.schema));
}

describe.each([
  [1, 'Everything'],
  [1, 'Before targets'],
  [2, 'Groups and tints'],
  [2, 'From a file'],
])('a folder of number %i: %s', (number, title) => {
  beforeAll(() => lay(number));

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
    const { id, revision } = duplicateDrawing(idOf(title));
    const { drawing } = stateOf(id);
    const ids = allLines(drawing).map((l) => l.id);
    const move = { id: 'm', ...moveLines(drawing, ids, { x: 0.1, y: 1 / 3 }) };
    expect(move.steps.map((s) => s.step)).toEqual(['translate']);
    appendChanges(id, revision, [move, inverseOf(move, 'b', 'Undo')]);
    expect(stateOf(id).drawing).toEqual(drawing);
  });
});

type Flat = { id: string; groups?: string[]; style: { colour: string; tint?: number }; runs: Line['runs'] };
type Then = Omit<Drawing, 'sheets'> & { sheets: { id: string; lines: Flat[] }[] };
const then = (number: number): Then =>
  JSON.parse(readFileSync(path.join(old(number), 'last.json'), 'utf8')) as unknown as Then;

describe.each([
  [1, 'Everything'],
  [2, 'Groups and tints'],
])('of number %i', (number, title) => {
  beforeAll(() => lay(number));

  test('it is what it was, to a millionth of a page unit, in the same order and the same groups', () => {
    const was = then(number);
    const now = stateOf(idOf(title)).drawing;
    now.sheets.forEach((sheet, s) => {
      const lines = linesOf(sheet);
      expect(lines.map((l) => l.id)).toEqual(was.sheets[s].lines.map((l) => l.id));
      lines.forEach((line, i) => {
        const before = was.sheets[s].lines[i];
        expect(lineOnGrid(line)).toBe(line);
        expect(groupsAround(sheet, line.id).map((g) => g.id.replace(/-part\d+$/, ''))).toEqual(before.groups ?? []);
        const nodes = (l: Pick<Line, 'runs'>) => l.runs.flatMap((r) => r.nodes);
        nodes(line).forEach((n, k) => {
          expect(Math.abs(n.point.x - nodes(before)[k].point.x)).toBeLessThan(1e-6);
          expect(Math.abs(n.point.y - nodes(before)[k].point.y)).toBeLessThan(1e-6);
        });
        const { stroke } = line.style;
        if (before.style.tint === undefined) expect(stroke).toBe(before.style.colour);
        else expect(stroke).toEqual({ of: 'beside', by: before.style.tint, else: before.style.colour });
      });
    });
    const rest = ({ sheets: _, schema: __, ...d }: object & { sheets: unknown; schema: unknown }) => d;
    expect(rest(now)).toEqual(rest(was));
  });
});

test('no two groups have the same name for the program, wherever their lines strayed', () => {
  lay(2);
  const { drawing } = stateOf(idOf('Groups and tints'));
  const ids = drawing.sheets.flatMap((s) => groupsIn(s.items));
  expect(ids.length).toBeGreaterThan(4);
  expect(new Set(ids).size).toBe(ids.length);
});

const groupsIn = (items: readonly Item[]): string[] =>
  items.flatMap((item) => (isGroup(item) ? [item.id, ...groupsIn(item.items)] : []));

test.each([
  [1, 'Everything'],
  [2, 'Groups and tints'],
])('a version of number %i is gone back to', (number, title) => {
  lay(number);
  const own = idOf(title);
  const [version] = listVersions(own);
  const { drawing } = versionOf(own, version.id);
  restoreVersion(own, version.id);
  expect(stateOf(own).drawing).toEqual(drawing);
});

describe('upgradeDrawing', () => {
  const first = then(1);

  test.each([1, 2])('takes a drawing of number %i', (number) => {
    const now = upgradeDrawing(then(number));
    expect(drawingSchema.safeParse(now).success).toBe(true);
    expect(upgradeDrawing(JSON.parse(JSON.stringify(now)))).toEqual(now);
  });

  test.each([
    [null, 'no drawing'],
    [[], 'no drawing'],
    [{}, 'by which number'],
    [{ ...first, schema: 0 }, 'by which number'],
    [{ ...first, schema: 99 }, 'later program'],
    [{ ...first, sheets: 4 }, 'not sound'],
    [{ ...first, page: null }, 'not sound: page'],
    [{ ...first, references: 'none' }, 'not sound: references'],
    [{ ...first, sheets: [{ ...first.sheets[0], lines: [{ id: 'a', runs: 'x' }] }] }, 'not sound'],
    [{ ...first, sheets: [{ ...first.sheets[0], lines: [{ runs: [{ nodes: [null] }] }] }] }, 'not sound'],
  ])('%#: says what is wrong', (raw, words) => {
    expect(() => upgradeDrawing(raw)).toThrow(RangeError);
    expect(() => upgradeDrawing(raw)).toThrow(words);
  });
});

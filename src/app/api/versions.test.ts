import { allLines } from '@/core/drawing/items';
import type { Drawing } from '@/core';
import { addLine, removeLines } from '@/core/edits/lines';
import { addSheet } from '@/core/edits/sheets';
import { wanderingDrawing } from '@/core/test/drawings';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { POST as create } from './drawings/route';
import { DELETE as remove, GET as read } from './drawings/[id]/route';
import { POST as change } from './drawings/[id]/changes/route';
import { GET as list, POST as keep } from './drawings/[id]/versions/route';
import { DELETE as drop, GET as open } from './drawings/[id]/versions/[v]/route';
import { POST as restore } from './drawings/[id]/versions/[v]/restore/route';
import { GET as thumbnail } from './drawings/[id]/versions/[v]/thumbnail/route';

freshDataFolder();

type Kept = { id: string; name: string; revision: number; at: number };
const page = { width: 100, height: 50, unit: 'mm', dpi: 300 };
const [line, other] = allLines(wanderingDrawing(2, 3, 3));

const opened = async (id: string) => (await call(read, 'GET', { id })).json as { drawing: Drawing; revision: number };
const versionsOf = async (id: string): Promise<Kept[]> =>
  ((await call(list, 'GET', { id })).json as { versions: Kept[] }).versions;
const keptAs = async (id: string, body: object): Promise<Kept> =>
  (await call(keep, 'POST', { id }, { body })).json as Kept;

/** A drawing with a line, and what is done to it next. */
async function drawingWithLine(): Promise<{ id: string; make: (edit: object) => Promise<number> }> {
  const { id } = (await call(create, 'POST', {}, { body: { title: 'Versions', page } })).json as { id: string };
  const make = async (edit: object): Promise<number> => {
    const { revision } = await opened(id);
    const body = { base: revision, changes: [{ id: `c${revision}`, ...edit }] };
    const answer = await call(change, 'POST', { id }, { body });
    expect(answer.status).toBe(200);
    return (answer.json as { revision: number }).revision;
  };
  const { drawing } = await opened(id);
  await make(addLine(drawing, drawing.sheets[0].id, line));
  return { id, make };
}

test('a version is kept by name and gone back to; that is a change, and nothing of what came since is lost', async () => {
  const { id, make } = await drawingWithLine();
  const before = (await opened(id)).drawing;
  const kept = await keptAs(id, { name: ' First line ' });
  expect(kept).toMatchObject({ name: 'First line', revision: 1 });
  await make(removeLines(before, [line.id]));
  const { drawing: between } = await opened(id);
  await make(addSheet(between, 'second', 'Second'));
  const { drawing: messed } = await opened(id);
  await make(addLine(messed, 'second', other));
  const { drawing: latest } = await opened(id);
  expect(latest).not.toEqual(before);

  const gone = await call(restore, 'POST', { id, v: kept.id });
  expect([gone.status, gone.json]).toEqual([200, { revision: 5 }]);
  expect((await opened(id)).drawing).toEqual(before);
  expect((await call(restore, 'POST', { id, v: kept.id })).json).toEqual({ revision: 5 });

  const later = await keptAs(id, { name: 'The mess', revision: 4 });
  expect((await call(open, 'GET', { id, v: later.id })).json).toMatchObject({ name: 'The mess', drawing: latest });
  await call(restore, 'POST', { id, v: later.id });
  expect((await opened(id)).drawing).toEqual(latest);
  expect((await versionsOf(id)).map((v) => v.name)).toEqual(['The mess', 'First line']);
});

test('a version has a picture; it can be forgotten, and goes with its drawing', async () => {
  const { id } = await drawingWithLine();
  const { id: v } = await keptAs(id, { name: 'One' });
  const shot = await call(thumbnail, 'GET', { id, v });
  expect([shot.status, shot.response.headers.get('content-type')]).toEqual([200, 'image/webp']);
  expect((await call(drop, 'DELETE', { id, v })).status).toBe(200);
  expect(await versionsOf(id)).toEqual([]);
  expect((await call(drop, 'DELETE', { id, v })).status).toBe(404);
  await keptAs(id, { name: 'Two' });
  await call(remove, 'DELETE', { id });
  await call(remove, 'DELETE', { id }, { query: '?forever=1' });
  expect((await call(list, 'GET', { id })).status).toBe(410);
});

test('what is not there, or makes no sense, is refused', async () => {
  const { id } = await drawingWithLine();
  const { id: other } = await drawingWithLine();
  const { id: v } = await keptAs(other, { name: 'Of another' });
  for (const body of [{}, { name: '  ' }, { name: 'x', revision: -1 }, { name: 'x', more: 1 }])
    expect((await call(keep, 'POST', { id }, { body })).status).toBe(400);
  expect((await call(keep, 'POST', { id }, { body: { name: 'x', revision: 99 } })).status).toBe(404);
  for (const odd of [v, 'nothing', '../../etc', "x' or 1=1"]) {
    expect((await call(restore, 'POST', { id, v: odd })).status).toBe(404);
    expect((await call(open, 'GET', { id, v: odd })).status).toBe(404);
  }
  expect((await call(list, 'GET', { id: 'nothing' })).status).toBe(404);
  expect((await opened(id)).revision).toBe(1);
});

import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import type { Drawing } from '@/core';
import { addLine } from '@/core/edits/lines';
import { edit } from '@/core/change/edit';
import { allLines, linesOf } from '@/core/drawing/items';
import { opacityOf } from '@/core/drawing/placement';
import { setReference } from '@/core/edits/references';
import { wanderingDrawing } from '@/core/test/drawings';
import { sightOf, type Sight } from '@/core/scene/sight';
import { unpacked } from '@/core/formats/packed';
import { database } from '@/server/database';
import { bareDrawing, forgetAll, readableBytes } from '@/server/journal';
import { snapshots } from '@/server/tables';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { POST as create } from '@/app/api/drawings/route';
import { GET as read } from '@/app/api/drawings/[id]/route';
import { POST as change } from '@/app/api/drawings/[id]/changes/route';
import { POST as bringIn } from '@/app/api/drawings/[id]/references/route';

freshDataFolder();

const small = { width: 100, height: 50, unit: 'px', dpi: 96 };

const seen = async (id: string): Promise<Sight | null> => {
  const bare = await bareDrawing(id);
  return bare && sightOf(bare);
};
const opened = async (id: string) => (await call(read, 'GET', { id })).json as { drawing: Drawing; revision: number };

test('a drawing is seen before it is painted: its page, and what lies under the work as it is now', async () => {
  const { id } = (await call(create, 'POST', {}, { body: { title: 'Seen', page: small } })).json as { id: string };
  // From memory, and from what is kept.
  for (const forget of [() => undefined, forgetAll]) {
    forget();
    expect(await seen(id)).toEqual({ page: { width: 100, height: 50, ground: '#fffefb' }, pictures: [] });
  }
  for (const width of [20, 30]) {
    const background = '#889977';
    const body = await sharp({ create: { width, height: 10, channels: 3, background } })
      .png()
      .toBuffer();
    const headers = { 'content-length': String(body.length) };
    await call(bringIn, 'POST', { id }, { body, query: '?name=scan.png', headers });
  }
  const { drawing, revision } = await opened(id);
  const [below, above] = drawing.references;
  const line = linesOf(wanderingDrawing(1, 3, 3).sheets[0])[0];
  const corrected = [{ kind: 'light', on: true, strength: 0.5 }] as const;
  const changes = [
    { id: 'a', ...setReference(drawing, below.id, { turn: 30, flipX: true, blend: 'multiply' }, 'Turn') },
    { id: 'b', ...addLine(drawing, drawing.sheets[0].id, { ...line, id: 'l' }) },
  ];
  expect((await call(change, 'POST', { id }, { body: { base: revision, changes } })).status).toBe(200);
  const pictures = (list: typeof drawing.references) =>
    list.map((r) => ({ picture: r.picture, width: r.width, at: r.at, turn: r.turn, flipX: r.flipX, blend: r.blend }));
  const now = await opened(id);
  expect((await seen(id))?.pictures).toMatchObject(pictures(now.drawing.references));
  expect((await seen(id))?.pictures[0]).toMatchObject({
    turn: 30,
    flipX: true,
    blend: 'multiply',
    opacity: opacityOf(now.drawing, below),
  });
  // What has changed since it was kept as a whole is read for it.
  const before = await seen(id);
  forgetAll();
  expect(await seen(id)).toEqual(before);
  // What is hidden, or corrected first, is not seen.
  const more = [
    { id: 'c', ...setReference(now.drawing, below.id, { visible: false }, 'Hide') },
    { id: 'd', ...setReference(now.drawing, above.id, { corrections: corrected }, 'Correct') },
  ];
  expect((await call(change, 'POST', { id }, { body: { base: now.revision, changes: more } })).status).toBe(200);
  expect((await seen(id))?.pictures).toEqual([]);
  expect(await seen('nothingthere')).toBeNull();
});

test('where much would have to be read first that is not waited for', async () => {
  const { id } = (await call(create, 'POST', {}, { body: { title: 'Full', page: small } })).json as { id: string };
  const { drawing, revision } = await opened(id);
  const steps = allLines(wanderingDrawing(1_000, 8, 3)).map((item, index) => ({
    step: 'insertItem' as const,
    at: { sheet: drawing.sheets[0].id, index },
    item,
  }));
  const changes = [{ id: 'a', ...edit('Paste', steps) }];
  expect((await call(change, 'POST', { id }, { body: { base: revision, changes } })).status).toBe(200);
  const before = await seen(id);
  expect(before).not.toBeNull();
  forgetAll();
  expect(await seen(id)).toBeNull();
  await opened(id);
  expect(await seen(id)).toEqual(before);
});

test('what was read to be seen is not read again to be opened, but where the drawing is another by then', async () => {
  const made = async () =>
    (await call(create, 'POST', {}, { body: { title: 'Opened', page: small } })).json as { id: string };
  const linesIn = async (id: string): Promise<number> =>
    linesOf(unpacked((await readableBytes(id)).bytes).sheets[0]).length;
  const [{ id }, { id: other }] = [await made(), await made()];
  forgetAll();
  expect(await seen(id)).not.toBeNull();
  database().delete(snapshots).where(eq(snapshots.drawingId, id)).run();
  expect(await linesIn(id)).toBe(0);
  expect(await seen(other)).not.toBeNull();
  await expect(linesIn(id)).rejects.toThrow();
  const { drawing, revision } = await opened(other);
  const line = linesOf(wanderingDrawing(1, 3, 3).sheets[0])[0];
  const changes = [{ id: 'a', ...addLine(drawing, drawing.sheets[0].id, { ...line, id: 'l' }) }];
  expect((await call(change, 'POST', { id: other }, { body: { base: revision, changes } })).status).toBe(200);
  expect(await linesIn(other)).toBe(1);
});

import { linesOf } from '@/core/drawing/items';
import sharp from 'sharp';
import { applyChange, type Drawing } from '@/core';
import { addLine } from '@/core/edits/lines';
import { setSheet } from '@/core/edits/sheets';
import { wanderingDrawing } from '@/core/test/drawings';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { GET as readPicture } from './pictures/[hash]/route';
import { GET as list, PATCH as doMany, POST as create } from './drawings/route';
import { DELETE as remove, GET as read, PATCH as patch } from './drawings/[id]/route';
import { POST as aside } from './drawings/[id]/aside/route';
import { POST as change } from './drawings/[id]/changes/route';
import { POST as duplicate } from './drawings/[id]/duplicate/route';
import { GET as save } from './drawings/[id]/export/route';
import { POST as bringIn } from './drawings/[id]/references/route';
import { GET as thumbnail } from './drawings/[id]/thumbnail/route';
import { POST as unbin } from './drawings/[id]/unbin/route';
import { GET as health } from './health/route';

freshDataFolder();

const page = { width: 100, height: 50, unit: 'mm', dpi: 300 };
const line = linesOf(wanderingDrawing(1, 3, 3).sheets[0])[0];

async function newDrawing(title = 'Test'): Promise<{ id: string; drawing: Drawing }> {
  const { json } = await call(create, 'POST', {}, { body: { title, page } });
  const { id } = json as { id: string };
  return { id, drawing: (await opened(id)).drawing };
}
const opened = async (id: string) =>
  (await call(read, 'GET', { id })).json as { drawing: Drawing; revision: number; title: string };
const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#889977' } });
const bring = (id: string, body: Uint8Array, query = '?name=scan.png', headers: Record<string, string> = {}) =>
  call(bringIn, 'POST', { id }, { body, query, headers: { 'content-length': String(body.length), ...headers } });

test('health', async () => {
  expect((await call(health, 'GET')).json).toMatchObject({
    ok: true,
    version: expect.stringMatching(/^\d+\.\d+\.\d+$/),
  });
});

test('a drawing is made, listed, opened, renamed, copied, binned and given back', async () => {
  const { id, drawing } = await newDrawing('First');
  expect(drawing.page.width).toBeCloseTo(377.953, 3);
  expect(drawing.sheets).toHaveLength(1);
  expect((await call(patch, 'PATCH', { id }, { body: { title: ' Second ', stage: 'ink' } })).status).toBe(200);
  expect((await call(list, 'GET')).json).toMatchObject({
    drawings: [{ id, title: 'Second', stage: 'ink', revision: 0 }],
  });
  expect((await call(duplicate, 'POST', { id })).status).toBe(201);
  await call(remove, 'DELETE', { id });
  expect((await call(list, 'GET', {}, { query: '?binned=1' })).json).toMatchObject({ drawings: [{ id }] });
  await call(unbin, 'POST', { id });
  expect((await call(list, 'GET', {}, { query: '?binned=1' })).json).toEqual({ drawings: [] });
});

test('one deed with many drawings; only what is in the bin is deleted for good', async () => {
  const ids = await Promise.all(['One', 'Two', 'Three'].map(async (title) => (await newDrawing(title)).id));
  const run = (deed: string, those: readonly string[] = ids) =>
    call(doMany, 'PATCH', {}, { body: { ids: those, deed } });
  const shown = async (query = '') => {
    const { drawings } = (await call(list, 'GET', {}, { query })).json as { drawings: { id: string }[] };
    return drawings.map((d) => d.id).filter((id) => ids.includes(id));
  };
  expect((await run('delete for good')).json).toEqual({ done: 0 });
  expect((await run('bin', ids.slice(0, 2))).json).toEqual({ done: 2 });
  expect(await shown()).toEqual([ids[2]]);
  expect((await run('put back', [ids[0]])).json).toEqual({ done: 1 });
  expect((await run('delete for good', [...ids, 'gone'])).json).toEqual({ done: 1 });
  expect(new Set(await shown())).toEqual(new Set([ids[0], ids[2]]));
  expect(await shown('?binned=1')).toEqual([]);
  expect((await run('duplicate', [ids[0]])).json).toEqual({ done: 1 });
  expect((await run('burn')).status).toBe(400);
  expect((await run('bin', ['../x'])).status).toBe(400);
});

test('a card tells how far its drawing is', async () => {
  const { id, drawing } = await newDrawing('Progress');
  const card = async () =>
    ((await call(list, 'GET')).json as { drawings: { id: string }[] }).drawings.find((d) => d.id === id);
  expect(await card()).toMatchObject({ sheets: 1, sheetsTraced: 0, lines: 0 });
  const [sheet] = drawing.sheets;
  const laid = { id: 'c1', ...addLine(drawing, sheet.id, line) };
  const traced = { id: 'c2', ...setSheet(applyChange(drawing, laid), sheet.id, { state: 'traced' }, 'Traced') };
  await call(change, 'POST', { id }, { body: { base: 0, changes: [laid, traced] } });
  expect(await card()).toMatchObject({ sheets: 1, sheetsTraced: 1, lines: 1 });
});

test('changes are appended; what does not fit is refused in plain words, and can be kept aside', async () => {
  const { id, drawing } = await newDrawing();
  const first = { id: 'c1', ...addLine(drawing, drawing.sheets[0].id, line) };
  expect((await call(change, 'POST', { id }, { body: { base: 0, changes: [first] } })).json).toEqual({ revision: 1 });
  expect((await opened(id)).drawing).toEqual(applyChange(drawing, first));
  const late = { ...first, id: 'c2', steps: [{ ...first.steps[0], item: { ...line, id: 'other' } }] };
  const refused = await call(change, 'POST', { id }, { body: { base: 0, changes: [late] } });
  expect([refused.status, refused.json]).toEqual([
    409,
    { error: { code: 'conflict', message: expect.any(String), revision: 1 } },
  ]);
  const kept = await call(aside, 'POST', { id }, { body: { base: 0, changes: [late] } });
  expect(kept.status).toBe(201);
  expect(linesOf((await opened((kept.json as { id: string }).id)).drawing.sheets[0]).map((l) => l.id)).toEqual([
    'other',
  ]);
  const unfit = { ...late, steps: [{ ...late.steps[0], at: { sheet: 'gone', index: 0 } }] };
  expect((await call(aside, 'POST', { id }, { body: { base: 0, changes: [unfit] } })).status).toBe(422);
  expect((await call(aside, 'POST', { id }, { body: { base: 9, changes: [late] } })).status).toBe(404);
});

describe('the door', () => {
  test.each([
    ['another site', { origin: 'http://elsewhere.example' }],
    ['an opaque origin', { origin: 'null' }],
    ['a browser that says so', { 'sec-fetch-site': 'cross-site' }],
  ])('a changing request from %s is refused', async (_, headers) => {
    const answer = await call(create, 'POST', {}, { body: { title: 'x', page }, headers });
    expect([answer.status, answer.json]).toMatchObject([403, { error: { code: 'foreign-origin' } }]);
  });
  test.each([
    ['GET', list],
    ['GET', health],
    ['POST', create],
  ] as const)('%s under a name that is not ours is refused, reading too', async (method, handler) => {
    const headers = { host: 'rebound.example:3000', origin: 'http://rebound.example:3000' };
    const body = method === 'POST' ? { title: 'x', page } : undefined;
    const answer = await call(handler, method, {}, { body, headers });
    expect([answer.status, answer.json]).toMatchObject([403, { error: { code: 'foreign-host' } }]);
  });
  test('what is answered cannot be framed, guessed at or read by another site', async () => {
    for (const { response } of [await call(list, 'GET'), await call(read, 'GET', { id: 'nothing' })])
      expect(Object.fromEntries(response.headers)).toMatchObject({
        'content-security-policy': expect.stringContaining("frame-ancestors 'none'"),
        'x-frame-options': 'DENY',
        'x-content-type-options': 'nosniff',
        'cross-origin-resource-policy': 'same-origin',
      });
  });
  test('our own pages are let in', async () => {
    expect(
      (await call(create, 'POST', {}, { body: { title: 'x', page }, headers: { origin: 'http://localhost:3000' } }))
        .status,
    ).toBe(201);
  });
  test.each([
    ['no JSON', '{', 400],
    ['unknown fields', { title: 'x', page, extra: 1 }, 400],
    ['no title', { title: ' ', page }, 400],
    ['an endless page', { title: 'x', page: { ...page, width: 1e9 } }, 400],
    ['a page of nothing', { title: 'x', page: { ...page, width: 0 } }, 400],
    ['a body too large', { title: 'x'.repeat(80_000), page }, 413],
  ])('%s', async (_, body, status) => {
    const bytes = typeof body === 'string' ? new TextEncoder().encode(body) : body;
    const answer = await call(create, 'POST', {}, { body: bytes });
    expect([answer.status, answer.json]).toMatchObject([
      status,
      { error: { code: expect.any(String), message: expect.any(String) } },
    ]);
  });
  test.each(['none', '../../etc', 'a b', ''])('drawing “%s” is not there', async (id) => {
    expect((await call(read, 'GET', { id })).status).toBe(404);
    expect((await call(save, 'GET', { id }, { query: '?format=svg' })).status).toBe(404);
  });
  test.each(['../../yellow-quill.sqlite', 'a'.repeat(64), '', '..%2f'])('picture “%s” is not there', async (hash) => {
    expect((await call(readPicture, 'GET', { hash })).status).toBe(404);
  });
});

describe('export', () => {
  test('SVG holds the lines alone; PNG comes at the size asked for', async () => {
    const { id, drawing } = await newDrawing('Äpfel');
    await bring(id, await picture(50, 50).png().toBuffer());
    const add = { id: 'c1', ...addLine(drawing, drawing.sheets[0].id, line) };
    await call(change, 'POST', { id }, { body: { base: 1, changes: [add] } });
    const svg = await call(save, 'GET', { id }, { query: '?format=svg' });
    const text = await svg.response.text();
    expect(text.match(/<path /g)).toHaveLength(1);
    expect(text).not.toContain('<image');
    expect(svg.response.headers.get('content-disposition')).toContain("filename*=UTF-8''%C3%84pfel.svg");
    expect(await (await call(save, 'GET', { id }, { query: '?format=svg&reference=1' })).response.text()).toContain(
      'data:image/png;base64,',
    );
    const png = await call(save, 'GET', { id }, { query: '?format=png&dpi=150&ground=page' });
    const image = sharp(Buffer.from(await png.response.arrayBuffer()));
    expect(await image.metadata()).toMatchObject({ format: 'png', width: 591, height: 295, density: 150 });
    const clear = sharp(
      Buffer.from(await (await call(save, 'GET', { id }, { query: '?format=png&dpi=30' })).response.arrayBuffer()),
    );
    expect((await clear.stats()).isOpaque).toBe(false);
    expect((await image.stats()).isOpaque).toBe(true);
  });

  test.each(['', '?format=exe', '?format=png&dpi=0', '?format=png&dpi=NaN', '?format=svg&scope=all'])(
    '“%s” is refused',
    async (query) => {
      const { id } = await newDrawing();
      expect((await call(save, 'GET', { id }, { query })).status).toBe(400);
    },
  );

  test('a size that cannot be drawn is refused', async () => {
    const { json } = await call(
      create,
      'POST',
      {},
      { body: { title: 'x', page: { ...page, width: 20_000, height: 20_000 } } },
    );
    const answer = await call(save, 'GET', { id: (json as { id: string }).id }, { query: '?format=png&dpi=2400' });
    expect([answer.status, answer.json]).toMatchObject([413, { error: { code: 'too-large' } }]);
  });

  test('the card’s picture follows the revision', async () => {
    const { id } = await newDrawing();
    const first = await call(thumbnail, 'GET', { id });
    expect(await sharp(Buffer.from(await first.response.arrayBuffer())).metadata()).toMatchObject({
      format: 'webp',
      width: 480,
      height: 240,
    });
    const etag = first.response.headers.get('etag')!;
    expect((await call(thumbnail, 'GET', { id }, { headers: { 'if-none-match': etag } })).status).toBe(304);
  });
});

test('what a page of an earlier program sends is taken as it was meant', async () => {
  const { id, drawing } = await newDrawing();
  const [{ id: sheet }] = drawing.sheets;
  const corner = (x: number) => ({ point: { x, y: 5 }, in: null, out: null, kind: 'corner' });
  const style = { colour: '#112233', width: 2, cap: 'round', join: 'round', fill: null };
  const old = (name: string, groups?: string[]) => ({
    id: name,
    style,
    runs: [{ closed: false, nodes: [corner(1 / 3), corner(9)] }],
    ...(groups && { groups }),
  });
  const sent = {
    base: 0,
    changes: [
      { id: 'one', label: 'Draw', steps: [{ step: 'insertLine', sheet, index: 0, line: old('a') }] },
      { id: 'two', label: 'Draw', steps: [{ step: 'insertLine', sheet, index: 0, line: old('b', ['g']) }] },
    ],
  };
  expect((await call(change, 'POST', { id }, { body: sent })).json).toEqual({ revision: 2 });
  const { items } = (await opened(id)).drawing.sheets[0];
  expect(items).toMatchObject([
    { kind: 'group', id: 'g', items: [{ id: 'b', style: { stroke: '#112233' } }] },
    { id: 'a', style: { stroke: '#112233' } },
  ]);
  const unsound = {
    base: 2,
    changes: [{ id: 'three', label: 'Draw', steps: [{ step: 'insertLine', sheet, index: -1 }] }],
  };
  expect((await call(change, 'POST', { id }, { body: unsound })).status).toBe(400);
});

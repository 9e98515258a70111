import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { fromBufferPromise } from 'yauzl';
import { ZipFile } from 'yazl';
import { applyChange, type Drawing } from '@/core';
import { addLine } from '@/core/edits/lines';
import { linesOf } from '@/core/drawing/items';
import { setSheet } from '@/core/edits/sheets';
import { wanderingDrawing } from '@/core/test/drawings';
import { closeDatabase } from '@/server/database';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { POST as create } from './drawings/route';
import { GET as read } from './drawings/[id]/route';
import { GET as changesOf, POST as change } from './drawings/[id]/changes/route';
import { POST as bringIn } from './drawings/[id]/references/route';
import { GET as listVersions, POST as keepVersion } from './drawings/[id]/versions/route';
import { GET as pack, POST as unpack } from './drawings/package/route';

freshDataFolder();
const places: string[] = [];
afterAll(() => places.forEach((p) => rmSync(p, { recursive: true, force: true })));

/** Another machine: nothing is on it yet. */
function elsewhere(): void {
  closeDatabase();
  const place = mkdtempSync(path.join(tmpdir(), 'yellow-quill-elsewhere-'));
  places.push(place);
  process.env.YELLOW_QUILL_DATA = place;
}

const opened = async (id: string) =>
  (await call(read, 'GET', { id })).json as { drawing: Drawing; revision: number; title: string };
const packed = async (ids: readonly string[]): Promise<Buffer> => {
  const { response } = await call(pack, 'GET', {}, { query: `?ids=${ids.join(',')}` });
  expect(response.status).toBe(200);
  return Buffer.from(await response.arrayBuffer());
};
const unpacked = async (bytes: Uint8Array) => {
  const { status, json } = await call(unpack, 'POST', {}, { body: bytes });
  return {
    status,
    ...(json as { drawings: { id: string; title: string }[]; lost: string[]; error?: { message: string } }),
  };
};

/** A drawing with a picture, a history and versions. */
async function worked(title: string): Promise<string> {
  const page = { width: 100, height: 50, unit: 'mm', dpi: 300 };
  const { id } = (await call(create, 'POST', {}, { body: { title, page } })).json as { id: string };
  const photo = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#889977' } })
    .png()
    .toBuffer();
  await call(
    bringIn,
    'POST',
    { id },
    { body: photo, query: '?name=scan.png', headers: { 'content-length': String(photo.length) } },
  );
  let { drawing, revision } = await opened(id);
  const lines = linesOf(wanderingDrawing(6, 4, 3).sheets[0]);
  for (const [i, line] of lines.entries()) {
    const edit =
      i === 3
        ? setSheet(drawing, drawing.sheets[0].id, { name: 'Blätter' }, 'Name sheet')
        : addLine(drawing, drawing.sheets[0].id, { ...line, id: `n${i}` });
    const made = { id: `c${i}`, ...edit };
    ({ revision } = (await call(change, 'POST', { id }, { body: { base: revision, changes: [made] } })).json as {
      revision: number;
    });
    drawing = applyChange(drawing, made);
    if (i === 1) await call(keepVersion, 'POST', { id }, { body: { name: 'Two lines' } });
  }
  return id;
}

test('a package is opened on another machine with nothing lost, and packed there it is the same to the byte', async () => {
  const ids = [await worked('Leaf'), await worked('Pear, öffentlich')];
  const before = await opened(ids[0]);
  const { json: history } = await call(changesOf, 'GET', { id: ids[0] }, { query: `?before=${before.revision + 1}` });
  const bytes = await packed(ids);
  elsewhere();
  const { status, drawings, lost } = await unpacked(bytes);
  expect([status, lost]).toEqual([201, []]);
  expect(drawings.map((d) => d.title)).toEqual(['Leaf', 'Pear, öffentlich']);
  const [id] = drawings.map((d) => d.id);
  const after = await opened(id);
  expect([after.drawing, after.revision]).toEqual([before.drawing, before.revision]);
  expect((await call(changesOf, 'GET', { id }, { query: `?before=${before.revision + 1}` })).json).toEqual(history);
  const { versions } = (await call(listVersions, 'GET', { id })).json as {
    versions: { name: string; revision: number }[];
  };
  expect(versions).toMatchObject([{ name: 'Two lines' }]);
  expect((await packed(drawings.map((d) => d.id))).equals(bytes)).toBe(true);
});

/** A package with some of its files changed: null leaves one out. */
async function altered(bytes: Buffer, change: (name: string, content: Buffer) => Buffer | null): Promise<Buffer> {
  const zip = await fromBufferPromise(bytes, { lazyEntries: true });
  const made = new ZipFile();
  for await (const entry of zip.eachEntry()) {
    const chunks: Buffer[] = [];
    for await (const chunk of (await zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) chunks.push(chunk);
    const next = change(entry.fileName, Buffer.concat(chunks));
    if (next) made.addBuffer(next, entry.fileName);
  }
  made.end();
  const out: Buffer[] = [];
  for await (const chunk of made.outputStream as AsyncIterable<Buffer>) out.push(chunk);
  return Buffer.concat(out);
}
const text = (f: (t: string) => string) => (b: Buffer) => Buffer.from(f(b.toString('utf8')));

describe('of a damaged package', () => {
  const lines = (d: Drawing) => linesOf(d.sheets[0]).length;

  test('what can be read is kept, and what cannot is said', async () => {
    const id = await worked('Torn');
    const { drawing, revision } = await opened(id);
    const whole = await packed([id]);
    const cases: [string, (name: string, b: Buffer) => Buffer | null, RegExp, number][] = [
      [
        'a change in the middle',
        (n, b) => (n.endsWith('.jsonl') ? text((t) => t.replace('"label":"', '"lab":"'))(b) : b),
        /changes from 1 on/,
        lines(drawing),
      ],
      [
        'the end of the history',
        (n, b) => (n.endsWith('.jsonl') ? b.subarray(0, b.length - 80) : b),
        /changes from \d on/,
        lines(drawing),
      ],
      [
        'its beginning',
        (n, b) => (n.endsWith('first.json') ? Buffer.from('{') : b),
        /the history of “Torn”/,
        lines(drawing),
      ],
      ['the newest state', (n, b) => (n.endsWith('drawing.json') ? null : b), /^$/, lines(drawing)],
      [
        'the picture',
        (n, b) => (n.startsWith('pictures/') ? b.subarray(0, 40) : b),
        /1 picture is damaged/,
        lines(drawing),
      ],
    ];
    for (const [what, change, why, count] of cases) {
      const answer = await unpacked(await altered(whole, change));
      expect({ what, status: answer.status }).toEqual({ what, status: 201 });
      expect(answer.lost.join('; ')).toMatch(why);
      const got = await opened(answer.drawings[0].id);
      expect({ what, count: lines(got.drawing) }).toEqual({ what, count });
      if (what === 'the picture' || what === 'the newest state') expect(got.revision).toBe(revision);
    }
  });

  test('one that is cut short, or none, or a newer one is refused with words, and nothing is left behind', async () => {
    const whole = await packed([await worked('Cut')]);
    const newer = await altered(whole, (n, b) =>
      n === 'manifest.json' ? text((t) => t.replace('"version": 1', '"version": 2'))(b) : b,
    );
    const bad: [Uint8Array, RegExp][] = [
      [whole.subarray(0, whole.length - 40), /no package|cut short/],
      [Buffer.from('hello'), /no package/],
      [newer, /newer program/],
      [await altered(whole, (n, b) => (n === 'manifest.json' ? null : b)), /no package/],
      [await altered(whole, (n, b) => (n.startsWith('drawings/') ? Buffer.from('?') : b)), /Nothing in this package/],
    ];
    for (const [bytes, why] of bad) {
      const { status, error } = await unpacked(bytes);
      expect(status).toBe(400);
      expect(error!.message).toMatch(why);
    }
  });
});

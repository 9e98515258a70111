import { readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { emptyDrawing, plainPage, type Drawing, type Reference } from '@/core';
import { correctReference } from '@/core/edits/references';
import { seeded } from '@/core/seeded';
import { wanderingDrawing } from '@/core/test/drawings';
import { applyChange } from '@/core/change/apply';
import { keepDrawing } from '@/server/drawings';
import { folder } from '@/server/place';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { smoothNoise } from '@/server/simulated/pictures/noise';
import { POST as change } from './drawings/[id]/changes/route';
import { firstDelivery } from '@/core/deliver/delivery';
import type { ShownJob } from '@/server/files/jobRows';
import { POST as makeFiles } from './drawings/[id]/files/route';
import { GET as readFile } from './files/[file]/route';
import { GET as save } from './drawings/[id]/export/route';
import { POST as bringIn } from './drawings/[id]/references/route';
import { GET as thumbnail } from './drawings/[id]/thumbnail/route';
import { GET as handIns, POST as handIn } from './drawings/[id]/hand-ins/route';
import { GET as readPicture } from './pictures/[hash]/route';

/** What is taken in can be shown, corrected and delivered; what cannot is refused at the door. */

freshDataFolder();

const page = plainPage({ width: 300, height: 200, unit: 'px', dpi: 96, ground: null });
const fresh = (): string => keepDrawing('Test', emptyDrawing(page, { id: 's', name: 'Sheet 1', tag: '#8f2d63' })).id;
const bring = async (id: string, bytes: Uint8Array) =>
  call(bringIn, 'POST', { id }, { body: bytes, query: '?name=a', headers: { 'content-length': String(bytes.length) } });

function noisy(): Sharp {
  const noise = smoothNoise(7);
  const [width, height] = [160, 120];
  const pixels = Buffer.alloc(width * height * 3);
  for (let i = 0; i < pixels.length; i++) pixels[i] = 128 + 120 * noise(i / 31, (i % 7) + i / 480);
  return sharp(pixels, { raw: { width, height, channels: 3 } });
}

test.each(['png', 'jpeg', 'webp', 'tiff', 'gif'] as const)(
  'a %s with damage in it is refused, or can be seen, corrected and delivered',
  async (kind) => {
    const whole = await noisy().toFormat(kind).toBuffer();
    const random = seeded(kind.length * 31);
    let taken = 0;
    for (let n = 0; n < 14; n++) {
      const bytes = Buffer.from(whole);
      const hits = n === 0 ? 0 : 1 + Math.floor(random() * 6);
      for (let k = 0; k < hits; k++) bytes[Math.floor(random() * bytes.length)] ^= 1 << Math.floor(random() * 8);
      const id = fresh();
      const { status, json } = await bring(id, n % 5 === 4 ? bytes.subarray(0, bytes.length * random()) : bytes);
      expect([201, 400, 413, 415]).toContain(status);
      if (status !== 201) continue;
      taken++;
      const { reference } = json as { reference: Reference };
      for (const size of ['screen', 'half', 'thumb'])
        expect((await call(readPicture, 'GET', { hash: reference.picture }, { query: `?size=${size}` })).status).toBe(
          200,
        );
      const { drawing } = await correctedBy(id, reference);
      expect(drawing.references[0].corrections).toHaveLength(1);
      expect((await call(thumbnail, 'GET', { id })).status).toBe(200);
      expect((await call(save, 'GET', { id }, { query: '?format=png&reference=1' })).status).toBe(200);
      expect((await call(save, 'GET', { id }, { query: '?format=pdf&reference=1' })).status).toBe(200);
    }
    expect(taken).toBeGreaterThan(0);
    expect(readdirSync(folder('incoming'))).toEqual([]);
  },
  120_000,
);

async function correctedBy(id: string, reference: Reference): Promise<{ drawing: Drawing }> {
  const start: Drawing = {
    ...emptyDrawing(page, { id: 's', name: 'Sheet 1', tag: '#8f2d63' }),
    references: [reference],
  };
  const made = {
    id: 'levels',
    ...correctReference(
      start,
      reference.id,
      [{ kind: 'levels', on: true, black: 20, white: 220, middle: 1 }],
      'Levels',
    ),
  };
  const { status } = await call(change, 'POST', { id }, { body: { base: 1, changes: [made] } });
  expect(status).toBe(200);
  return { drawing: applyChange(start, made) };
}

/** A PNG that can be decoded where its checksums are let pass, and else not. */
async function faulty(): Promise<Buffer> {
  const whole = await noisy().ensureAlpha(0.5).png().toBuffer();
  const isRead = (bytes: Buffer, failOn: 'truncated' | 'error'): Promise<boolean> =>
    sharp(bytes, { failOn })
      .stats()
      .then(
        () => true,
        () => false,
      );
  for (let at = whole.length - 17; at > 0; at -= 3) {
    const bytes = Buffer.from(whole);
    bytes[at] ^= 1;
    if ((await isRead(bytes, 'truncated')) && !(await isRead(bytes, 'error'))) return bytes;
  }
  throw new Error('there is none');
}

test('a picture that is shown, and that others would fail at, is delivered as it is shown', async () => {
  const bytes = await faulty();
  const id = fresh();
  const { status, json } = await bring(id, bytes);
  expect(status).toBe(201);
  const { reference } = json as { reference: Reference };
  const shown = await call(readPicture, 'GET', { hash: reference.picture }, { query: '?size=screen' });
  expect(shown.status).toBe(200);
  for (const format of ['pdf', 'svg', 'png'])
    expect((await call(save, 'GET', { id }, { query: `?format=${format}&reference=1` })).status).toBe(200);
  // The file that it came as is kept as it came.
  const original = await call(readPicture, 'GET', { hash: reference.picture });
  expect(Buffer.from(await original.response.arrayBuffer()).equals(bytes)).toBe(true);
});

test('a picture whose file is gone leaves the card, and all files, without it, and that is told', async () => {
  const { id } = keepDrawing('Test', wanderingDrawing(2, 3, 1));
  const { json } = await bring(id, await noisy().png().toBuffer());
  const { reference } = json as { reference: Reference };
  rmSync(path.join(folder('pictures'), reference.picture));
  for (const name of readdirSync(folder('derived'))) rmSync(path.join(folder('derived'), name));
  expect((await call(thumbnail, 'GET', { id })).status).toBe(200);
  for (const format of ['svg', 'png', 'pdf'])
    expect((await call(save, 'GET', { id }, { query: `?format=${format}&reference=1` })).status).toBe(200);
  const asked = { deliveries: [{ name: '', wanted: { ...firstDelivery, reference: true } }] };
  const { job } = (await call(makeFiles, 'POST', { id }, { body: asked })).json as { job: ShownJob };
  let made = job;
  while (made.endedAt === null) {
    await new Promise((done) => setTimeout(done, 20));
    made = ((await call(readFile, 'GET', { file: job.id })).json as { job: ShownJob }).job;
  }
  expect(made).toMatchObject({ state: 'done', reason: 'Made without a picture that is missing or damaged.' });
  // What is handed in goes to somebody else: not without that being wanted.
  const handed = { place: 'catalogue', wanted: { ...firstDelivery, format: 'pdf', reference: true } };
  const refused = await call(handIn, 'POST', { id }, { body: handed });
  expect(refused).toMatchObject({ status: 409, json: { error: { code: 'lacking' } } });
  expect((refused.json as { error: { message: string } }).error.message).toContain('Nothing was handed in');
  expect((await call(handIns, 'GET', { id })).json).toEqual({ handIns: [] });
  expect((await call(handIn, 'POST', { id }, { body: { ...handed, lacking: true } })).status).toBe(202);
  const own = { ...handed, wanted: { ...handed.wanted, reference: false } };
  expect((await call(handIn, 'POST', { id }, { body: own })).status).toBe(202);
  const shown = await call(readPicture, 'GET', { hash: reference.picture }, { query: '?size=screen' });
  expect(shown.status).toBe(404);
  const original = await call(readPicture, 'GET', { hash: reference.picture });
  expect(original.status).toBe(404);
});

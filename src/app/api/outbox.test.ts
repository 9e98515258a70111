import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { firstDelivery, type Delivery } from '@/core/deliver/delivery';
import { useCourier, type HandIn } from '@/server/outbox/handIns';
import { SimulatedCourier } from '@/server/outbox/simulatedCourier';
import { dataFolder } from '@/server/place';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { GET as list, POST as handIn } from './drawings/[id]/hand-ins/route';
import { POST as bringIn } from './drawings/import/route';
import { DELETE as drop, GET as read, POST as again } from './hand-ins/[file]/route';
import { GET as content } from './hand-ins/[file]/content/route';
import { GET as places } from './places/route';

freshDataFolder();
let id = '';
beforeAll(async () => {
  useCourier(new SimulatedCourier(0.02));
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><path d="M10 10L90 90" stroke="red"/></svg>';
  ({ id } = (await call(bringIn, 'POST', {}, { body: Buffer.from(svg), query: '?title=The can' })).json as {
    id: string;
  });
});

const ask = async (place: string, some: Partial<Delivery>) => {
  const { status, json } = await call(
    handIn,
    'POST',
    { id },
    { body: { place, wanted: { ...firstDelivery, ...some } } },
  );
  return { status, ...(json as { handIn: HandIn; error: { message: string } }) };
};
async function ended(file: string): Promise<HandIn> {
  for (;;) {
    const { handIn: row } = (await call(read, 'GET', { file })).json as { handIn: HandIn };
    if (row.state !== 'sending') return row;
    await new Promise((r) => setTimeout(r, 10));
  }
}
const bytesOf = async (file: string) =>
  Buffer.from(await (await call(content, 'GET', { file })).response.arrayBuffer());

test('what is handed in arrives byte for byte, with a receipt of its own number and time', async () => {
  const { status, handIn: begun } = await ask('catalogue', { format: 'pdf' });
  expect([status, begun.state]).toEqual([202, 'sending']);
  const row = await ended(begun.id);
  expect(row).toMatchObject({ state: 'received', sent: row.bytes, name: 'The can.pdf', tries: 1 });
  expect(row.receipt).toMatch(/^CA-\d{4}-0001$/);
  expect(Math.abs(row.receivedAt! - Date.now())).toBeLessThan(60_000);
  const there = path.join(dataFolder(), 'handed-in', 'catalogue', row.receipt!);
  const arrived = readFileSync(path.join(there, 'file.pdf'));
  expect(arrived.equals(await bytesOf(row.id))).toBe(true);
  const manifest = JSON.parse(readFileSync(path.join(there, 'manifest.json'), 'utf8'));
  expect(manifest).toMatchObject({ title: 'The can', sha256: createHash('sha256').update(arrived).digest('hex') });
  const second = await ended((await ask('catalogue', { format: 'pdf' })).handIn.id);
  expect(second.receipt).toMatch(/0002$/);
});

test.each<[string, string, Partial<Delivery>, RegExp]>([
  ['too coarse', 'catalogue', { format: 'tiff', dpi: 96 }, /300 are needed/],
  ['of another kind', 'catalogue', { format: 'svg' }, /\.svg is not taken/],
  ['too late', 'fair', { format: 'pdf' }, /closed on 2026-10-31/],
])('what is %s is refused with the reason, and nothing is kept there', async (_, place, some, reason) => {
  const row = await ended((await ask(place, some)).handIn.id);
  expect(row).toMatchObject({ state: 'refused', receipt: null, reason: expect.stringMatching(reason) });
  const { handIn: once } = (await call(again, 'POST', { file: row.id })).json as { handIn: HandIn };
  expect(await ended(once.id)).toMatchObject({ state: 'refused', tries: 2 });
});

test('a line that breaks is tried again with the very bytes, also when the drawing has changed', async () => {
  const failed = await ended((await ask('mill', { format: 'png' })).handIn.id);
  expect(failed).toMatchObject({ state: 'failed', reason: expect.stringContaining('broke') });
  expect(failed.sent).toBeLessThan(failed.bytes);
  expect(existsSync(path.join(dataFolder(), 'handed-in', 'mill'))).toBe(false);
  await call(again, 'POST', { file: failed.id });
  const row = await ended(failed.id);
  expect(row).toMatchObject({ state: 'received', tries: 2, sha256: failed.sha256 });
  expect((await call(again, 'POST', { file: row.id })).status).toBe(409);
  expect((await call(drop, 'DELETE', { file: row.id })).status).toBe(409);
});

test('one that is called off did not arrive; it can be forgotten', async () => {
  useCourier(new SimulatedCourier(1));
  const { handIn: begun } = await ask('shop', { format: 'svg' });
  await call(drop, 'DELETE', { file: begun.id });
  expect(await ended(begun.id)).toMatchObject({ state: 'failed', reason: 'It was called off.' });
  expect((await call(drop, 'DELETE', { file: begun.id })).status).toBe(204);
  expect((await call(read, 'GET', { file: begun.id })).status).toBe(404);
  useCourier(new SimulatedCourier(0.02));
});

test('places tell what they take and until when; what is not there is refused with words', async () => {
  const all = ((await call(places, 'GET')).json as { places: { id: string; deadline: number | null }[] }).places;
  expect(all.length).toBeGreaterThanOrEqual(4);
  expect(all.find((p) => p.id === 'catalogue')!.deadline).toBeGreaterThan(Date.now());
  expect((await ask('nowhere', {})).status).toBe(404);
  expect((await ask('mill', { scope: 'chosen', chosen: [] })).error.message).toContain(
    'nothing that is seen is chosen',
  );
  const { handIns } = (await call(list, 'GET', { id })).json as { handIns: HandIn[] };
  expect(handIns.every((h) => h.drawingId === id)).toBe(true);
  expect(handIns.length).toBeGreaterThan(4);
});

import sharp from 'sharp';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { GET as camera } from './camera/[n]/route';
import { GET as scanner } from './scanner/route';
import { POST as begin } from './scanner/scans/route';
import { DELETE as stop, GET as look } from './scanner/scans/[id]/route';
import { GET as picture } from './scanner/scans/[id]/picture/route';

freshDataFolder();
beforeAll(() => {
  process.env.YELLOW_QUILL_SCANNER_PACE = '0.1';
});

type Scan = { state: string; progress: number; why: string | null };
const ask = async (page: string, dpi = 75, colour = false) => {
  const { json, status } = await call(begin, 'POST', {}, { body: { page, dpi, colour } });
  return { id: (json as { id: string }).id, status, json };
};
const seen = async (id: string) => (await call(look, 'GET', { id })).json as Scan;
async function over(id: string): Promise<Scan & { heard: number[] }> {
  const heard: number[] = [];
  for (;;) {
    const scan = await seen(id);
    heard.push(scan.progress);
    if (scan.state !== 'scanning') return { ...scan, heard };
    await new Promise((r) => setTimeout(r, 10));
  }
}

/** How far the means of a picture's colours lie apart. */
async function spread(bytes: Buffer): Promise<number> {
  const { channels } = await sharp(bytes).toColourspace('srgb').removeAlpha().stats();
  const means = channels.map((c) => c.mean);
  return Math.max(...means) - Math.min(...means);
}

test('the scanner tells its name and pages', async () => {
  expect((await call(scanner, 'GET')).json).toEqual({
    name: expect.stringContaining('simulated'),
    pages: expect.arrayContaining([{ id: 'pear', name: expect.any(String), width: 148, height: 210 }]),
  });
});

test('a scan takes its time, tells how far it is, and gives the page at the dpi asked for', async () => {
  const { id, status } = await ask('pear', 100);
  expect(status).toBe(202);
  expect((await ask('snail')).status).toBe(409);
  const scan = await over(id);
  expect(scan).toMatchObject({ state: 'done', progress: 1 });
  expect(scan.heard).toEqual([...scan.heard].sort((a, b) => a - b));
  const { response } = await call(picture, 'GET', { id });
  const bytes = Buffer.from(await response.arrayBuffer());
  expect(await sharp(bytes).metadata()).toMatchObject({ format: 'png', density: 100, width: 583 });
  expect((await sharp(bytes).stats()).channels[0].min).toBeLessThan(160);
  expect(await spread(bytes)).toBeLessThan(1);
  const colour = await ask('pear', 75, true);
  await over(colour.id);
  const toned = await call(picture, 'GET', { id: colour.id });
  expect(await spread(Buffer.from(await toned.response.arrayBuffer()))).toBeGreaterThan(3);
}, 60_000);

test('it can be stopped, and a jam is told in plain words', async () => {
  const { id } = await ask('pear', 600);
  await call(stop, 'DELETE', { id });
  expect((await over(id)).state).toBe('stopped');
  expect((await call(picture, 'GET', { id })).status).toBe(404);
  const jam = await over((await ask('crumpled')).id);
  expect(jam).toMatchObject({ state: 'failed', why: expect.stringMatching(/stuck.*nothing was brought in/i) });
});

test.each([
  ['a page that is not there', { page: 'none', dpi: 100, colour: false }, 404],
  ['too fine', { page: 'pear', dpi: 1200, colour: false }, 400],
  ['too coarse', { page: 'pear', dpi: 10, colour: false }, 400],
  ['no page', { dpi: 100, colour: false }, 400],
])('%s is refused', async (_, body, status) => {
  expect((await call(begin, 'POST', {}, { body })).status).toBe(status);
});

test('the camera sees something else at each press, and the same for the same press', async () => {
  const shot = async (n: string) => Buffer.from(await (await call(camera, 'GET', { n })).response.arrayBuffer());
  const [first, again, second] = [await shot('1'), await shot('1'), await shot('2')];
  expect(first.equals(again)).toBe(true);
  expect(first.equals(second)).toBe(false);
  expect(await sharp(first).metadata()).toMatchObject({ format: 'jpeg', width: 1600, height: 1200 });
  expect((await call(camera, 'GET', { n: '-1' })).status).toBe(400);
  expect((await call(camera, 'GET', { n: 'x' })).status).toBe(400);
}, 60_000);

import { existsSync } from 'node:fs';
import path from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { fromBuffer } from 'yauzl';
import { firstDelivery, type Delivery } from '@/core/deliver/delivery';
import type { MotionKind } from '@/core/replay/motion';
import { jobFile, setJob, settleLeftovers, type ShownJob } from '@/server/files/jobRows';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { GET as list, POST as begin } from './drawings/[id]/files/route';
import { POST as made } from './drawings/[id]/export/route';
import { POST as bringIn } from './drawings/import/route';
import { DELETE as drop, GET as read } from './files/[file]/route';
import { GET as content } from './files/[file]/content/route';

freshDataFolder();

const text =
  '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><g id="Spout"><path d="M10 10L90 90" fill="none" stroke="#d1495b" stroke-width="8"/></g><g id="Handle"><path d="M110 10L190 90" fill="none" stroke="#1f5e8c" stroke-width="8"/></g></svg>';
let id = '';
beforeAll(async () => {
  const { json } = await call(bringIn, 'POST', {}, { body: Buffer.from(text), query: '?title=The/can' });
  ({ id } = json as { id: string });
});

const ask = async (...deliveries: [string, Partial<Delivery>][]) => {
  const body = { deliveries: deliveries.map(([name, some]) => ({ name, wanted: { ...firstDelivery, ...some } })) };
  const answer = await call(begin, 'POST', { id }, { body });
  return { status: answer.status, ...(answer.json as { job: ShownJob; error: { message: string } }) };
};
const jobOf = async (file: string) => ((await call(read, 'GET', { file })).json as { job: ShownJob }).job;
async function ended(file: string): Promise<ShownJob> {
  for (;;) {
    const job = await jobOf(file);
    if (job.endedAt !== null) return job;
    await new Promise((r) => setTimeout(r, 20));
  }
}
const bytesOf = async (file: string) => {
  const { response } = await call(content, 'GET', { file });
  return { response, bytes: response.ok ? Buffer.from(await response.arrayBuffer()) : Buffer.alloc(0) };
};

async function filesIn(zip: Buffer): Promise<Record<string, Buffer>> {
  const files: Record<string, Buffer> = {};
  await new Promise<void>((done, fail) =>
    fromBuffer(zip, { lazyEntries: true }, (error, all) => {
      if (error) return fail(error);
      all.on('entry', (entry) =>
        all.openReadStream(entry, (_, stream) => {
          const chunks: Buffer[] = [];
          stream.on('data', (c: Buffer) => chunks.push(c));
          stream.on('end', () => {
            files[entry.fileName] = Buffer.concat(chunks);
            all.readEntry();
          });
        }),
      );
      all.on('end', () => done());
      all.readEntry();
    }),
  );
  return files;
}

test('one file is that file, byte for byte the one that was seen before', async () => {
  const { status, job } = await ask(['', { format: 'png', dpi: 192 }]);
  expect(status).toBe(202);
  const done = await ended(job.id);
  expect(done).toMatchObject({ state: 'done', made: 1, total: 1, name: 'The can.png', mime: 'image/png' });
  const { response, bytes } = await bytesOf(job.id);
  expect(bytes.length).toBe(done.bytes);
  expect(response.headers.get('content-disposition')).toContain("filename*=UTF-8''The%20can.png");
  const seen = await call(made, 'POST', { id }, { body: { ...firstDelivery, format: 'png', dpi: 192 } });
  expect(Buffer.from(await seen.response.arrayBuffer()).equals(bytes)).toBe(true);
});

test('several in one press come as a zip, each under its name, and are found again', async () => {
  const { job } = await ask(
    ['for the web', { format: 'webp', each: 'sheet', scope: 'drawing' }],
    ['', { format: 'pdf' }],
  );
  expect(await ended(job.id)).toMatchObject({ state: 'done', made: 3, total: 3, name: 'The can.zip' });
  const files = await filesIn((await bytesOf(job.id)).bytes);
  expect(Object.keys(files)).toEqual([
    'The can, for the web, Spout.webp',
    'The can, for the web, Handle.webp',
    'The can.pdf',
  ]);
  const { width } = await sharp(files['The can, for the web, Spout.webp']).metadata();
  expect(width).toBeLessThan(100);
  const { jobs } = (await call(list, 'GET', { id })).json as { jobs: ShownJob[] };
  expect(jobs[0].id).toBe(job.id);
});

describe('a drawing that draws itself', () => {
  const motion = { as: 'webp', fps: 6, length: 2, pause: 0.2, width: 100 } as const;
  const moving = async (as: MotionKind) => {
    const body = { deliveries: [{ name: '', wanted: { ...firstDelivery, ground: false }, motion: { ...motion, as } }] };
    const { json } = await call(begin, 'POST', { id }, { body });
    const job = await ended((json as { job: ShownJob }).job.id);
    expect(job).toMatchObject({ state: 'done', made: job.total });
    return { job, ...(await bytesOf(job.id)) };
  };
  const inked = async (png: Buffer): Promise<number> => {
    const { data } = await sharp(png)
      .flatten({ background: '#fff' })
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return data.reduce((n, v) => n + (v < 200 ? 1 : 0), 0);
  };

  test.each(['webp', 'gif'] as const)(
    'as %s: as many pictures as were asked for, with ever more on them',
    async (as) => {
      const { job, bytes } = await moving(as);
      expect(job.name).toBe(`The can.${as}`);
      const about = await sharp(bytes, { animated: true }).metadata();
      // Pictures that are alike, while the pen rests, are one that is seen for longer.
      expect(about).toMatchObject({ width: 100, pageHeight: 50 });
      expect(about.pages).toBeGreaterThan(8);
      expect(Math.abs(about.delay!.reduce((a, b) => a + b) - 3000)).toBeLessThan(90);
      const counts = await Promise.all(
        [0, 3, 6, about.pages! - 1].map(async (page) => inked(await sharp(bytes, { page }).png().toBuffer())),
      );
      expect([...counts].sort((a, b) => a - b)).toEqual(counts);
      expect(counts[0]).toBeLessThan(0.3 * counts[3]);
    },
  );

  test('as numbered pictures, the last as the drawing is', async () => {
    const { job, bytes } = await moving('frames');
    expect([job.name, job.total]).toEqual(['The can.zip', 12]);
    const files = await filesIn(bytes);
    expect(Object.keys(files)).toEqual(Array.from({ length: 12 }, (_, i) => `${String(i + 1).padStart(4, '0')}.png`));
    const still = await call(made, 'POST', { id }, { body: { ...firstDelivery, format: 'png', dpi: 48 } });
    const whole = Buffer.from(await still.response.arrayBuffer());
    expect(Math.abs((await inked(files['0012.png'])) - (await inked(whole)))).toBeLessThan(8);
  });

  test('as SVG that moves, and as still SVG in its order', async () => {
    const { bytes } = await moving('moving svg');
    expect(bytes.toString()).toContain('@keyframes draw');
    const { bytes: still } = await moving('svg in order');
    expect(still.toString().match(/<path /g)).toHaveLength(2);
    expect(still.toString()).not.toContain('@keyframes');
  });
});

test('what cannot be made says why; nothing of it is left', async () => {
  expect(await ask(['', { scope: 'chosen', chosen: [] }])).toMatchObject({
    status: 400,
    error: { message: expect.stringContaining('chosen') },
  });
  // Several times over: what is left may come only after the job has failed.
  for (let i = 0; i < 12; i++) {
    const { job } = await ask(
      ['', { format: 'png', dpi: 2400, bleed: 1000 }],
      ['', { format: 'tiff', dpi: 2400, bleed: 1000 }],
    );
    expect(await ended(job.id)).toMatchObject({ state: 'failed', reason: expect.stringContaining('too large') });
    expect((await bytesOf(job.id)).response.status).toBe(404);
    expect(existsSync(jobFile(job.id))).toBe(false);
  }
});

test('one that is called off stops, and is gone', async () => {
  const { job } = await ask(
    ...Array.from({ length: 40 }, (_, i): [string, Partial<Delivery>] => [String(i), { format: 'avif', dpi: 1200 }]),
  );
  expect((await call(drop, 'DELETE', { file: job.id })).status).toBe(204);
  expect((await call(read, 'GET', { file: job.id })).status).toBe(404);
  expect(existsSync(jobFile(job.id))).toBe(false);
  expect((await call(drop, 'DELETE', { file: '../x' })).status).toBe(404);
});

test('what another run left under way is told as failed', async () => {
  const { job } = await ask(['', {}]);
  await ended(job.id);
  setJob(job.id, { state: 'working', endedAt: null });
  await settleLeftovers(() => false);
  expect(await jobOf(job.id)).toMatchObject({ state: 'failed', reason: expect.stringContaining('stopped') });
  expect(path.basename(jobFile(job.id))).toBe(job.id);
});

test('a colouring page has its title in letters, on the paper that was chosen', async () => {
  const paper = { width: 793.7, height: 1122.5, margin: 40, title: true, border: true, count: 1 };
  const page = async (title: boolean) => {
    const answer = await call(
      made,
      'POST',
      { id },
      { body: { ...firstDelivery, format: 'png', shows: 'lines', paper: { ...paper, title } } },
    );
    expect(answer.status).toBe(200);
    return sharp(Buffer.from(await answer.response.arrayBuffer()));
  };
  const titled = await page(true);
  expect(await titled.metadata()).toMatchObject({ width: 1123, height: 794 });
  // Its band is where the title stands; without one nothing is there.
  const dark = async (image: Sharp) =>
    (await image.extract({ left: 400, top: 42, width: 300, height: 22 }).stats()).channels[0].min;
  expect(await dark(titled)).toBeLessThan(60);
  const { data, info } = await (await page(true)).greyscale().raw().toBuffer({ resolveWithObject: true });
  const columns = new Set<number>();
  for (let y = 44; y < 62; y++) for (let x = 0; x < info.width; x++) if (data[y * info.width + x] < 100) columns.add(x);
  // Seven letters, in the middle.
  const all = [...columns].sort((a, b) => a - b);
  expect(Math.abs((all[0] + all.at(-1)!) / 2 - info.width / 2)).toBeLessThan(4);
  const gaps = all.filter((x, i) => i > 0 && x - all[i - 1] > 1).length;
  expect(gaps).toBeGreaterThanOrEqual(4);
});

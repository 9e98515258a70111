process.env.YELLOW_QUILL_PATIENCE_MS = '150';

import { NextRequest } from 'next/server';
import { proxy } from '@/proxy';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { counted, forgetCounts } from '@/server/rates';
import { withUpload } from '@/server/uploads';
import { GET as health } from './health/route';
import { GET as file } from './drawings/[id]/export/route';
import { GET as list, POST as create } from './drawings/route';
import { GET as keeping, POST as keep } from './keeping/route';

freshDataFolder();

const page = { width: 100, height: 50, unit: 'mm', dpi: 96 };

describe('a token, where the server wants one', () => {
  beforeEach(() => (process.env.YELLOW_QUILL_TOKEN = 'a secret; with = signs'));
  afterEach(() => {
    delete process.env.YELLOW_QUILL_TOKEN;
    delete process.env.YELLOW_QUILL_HOSTS;
  });

  test('data is for those who bear it; what others may know is that it runs', async () => {
    expect((await call(list, 'GET')).status).toBe(401);
    expect((await call(list, 'GET', {}, { headers: { authorization: 'Bearer wrong' } })).status).toBe(401);
    const good = { authorization: 'Bearer a secret; with = signs' };
    expect((await call(list, 'GET', {}, { headers: good })).status).toBe(200);
    const answer = proxy(
      new NextRequest('http://localhost:3000/?token=a%20secret%3B%20with%20%3D%20signs', {
        headers: { host: 'localhost:3000' },
      }),
    );
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/']);
    const cookie = answer.headers.get('set-cookie')!;
    expect(cookie).toMatch(/HttpOnly.*SameSite=Strict/);
    expect((await call(list, 'GET', {}, { headers: { cookie: cookie.split(';')[0] } })).status).toBe(200);
  });

  test('pages are refused without it, and with a wrong one', () => {
    for (const url of ['http://localhost:3000/', 'http://localhost:3000/?token=no', 'http://localhost:3000/keeping']) {
      const { status } = proxy(new NextRequest(url, { headers: { host: 'localhost:3000' } }));
      expect(status).toBe(401);
    }
  });
});

test('health says more to this machine than to others', async () => {
  const here = (await call(health, 'GET')).json as Record<string, unknown>;
  expect(here).toMatchObject({ ok: true, trouble: null, acknowledged: 0, jobs: { working: 0, waiting: 0 }, lost: 0 });
  expect((here.disk as { free: number }).free).toBeGreaterThan(0);
  process.env.YELLOW_QUILL_HOSTS = 'studio.example';
  const there = (await call(health, 'GET')).json as Record<string, unknown>;
  delete process.env.YELLOW_QUILL_HOSTS;
  expect(Object.keys(there).sort()).toEqual(['ok', 'version']);
});

test('each answer has a number, by which it is found in the log', async () => {
  const numbers = await Promise.all(
    [1, 2].map(async () => (await call(list, 'GET')).response.headers.get('x-request-id')),
  );
  expect(numbers[0]).toMatch(/^[\w-]{8}$/);
  expect(numbers[0]).not.toBe(numbers[1]);
});

test('safe-keeping by requests: looked at, backed up, put back; what is asked wrongly is refused', async () => {
  const state = (await call(keep, 'POST', {}, { body: { deed: 'back up' } })).json as { backups: { name: string }[] };
  expect(state.backups).toHaveLength(1);
  const checked = (await call(keep, 'POST', {}, { body: { deed: 'check' } })).json as {
    report: { findings: unknown[] };
  };
  expect(checked.report.findings).toEqual([]);
  const [{ name }] = state.backups;
  expect((await call(keep, 'POST', {}, { body: { deed: 'restore', backup: name } })).status).toBe(200);
  expect((await call(keep, 'POST', {}, { body: { deed: 'restore', backup: '../x' } })).status).toBe(400);
  expect((await call(keep, 'POST', {}, { body: { deed: 'restore', backup: 'none' } })).status).toBe(404);
  expect((await call(keep, 'POST', {}, { body: { deed: 'begin anew' } })).status).toBe(409);
  expect((await call(keeping, 'GET')).status).toBe(200);
});

test('a page that has run away is told to come again later, and how much later', async () => {
  const { id } = (await call(create, 'POST', {}, { body: { title: 'Run away', page } })).json as { id: string };
  const ask = () => call(file, 'GET', { id }, { query: '?format=svg' });
  expect((await ask()).status).toBe(200);
  for (let n = 0; n < 2_999; n++) await counted('file');
  const { status, response, json } = await ask();
  expect([status, json]).toMatchObject([429, { error: { code: 'too-often' } }]);
  expect(Number(response.headers.get('retry-after'))).toBeGreaterThan(0);
  // Files that are brought in are counted by themselves.
  await expect(withUpload(new Blob(['x']).stream(), (body) => new Response(body).text())).resolves.toBe('x');
  forgetCounts();
  expect((await ask()).status).toBe(200);
});

describe('files that are sent', () => {
  const standing = (): ReadableStream<Uint8Array> =>
    new ReadableStream({ start: (to) => to.enqueue(new Uint8Array([1, 2, 3])) });
  const all = (body: ReadableStream<Uint8Array> | null) => new Response(body as BodyInit).arrayBuffer();

  test('a line that stands still is given up', async () => {
    await expect(withUpload(standing(), all)).rejects.toMatchObject({ status: 408 });
  });

  test('a few at a time; who comes then is told to come again, and may', async () => {
    const first = Array.from({ length: 8 }, () =>
      withUpload(standing(), all).catch((e: { status: number }) => e.status),
    );
    await expect(withUpload(new Blob(['x']).stream(), all)).rejects.toMatchObject({ status: 429 });
    expect(await Promise.all(first)).toEqual(Array(8).fill(408));
    expect((await withUpload(new Blob(['whole']).stream(), all)).byteLength).toBe(5);
  });
});

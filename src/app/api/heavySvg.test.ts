import { readdirSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { folder } from '@/server/place';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { POST as create } from './drawings/route';
import { POST as bringIn } from './drawings/[id]/references/route';

/** SVG pictures that are small, and would keep a renderer at work for minutes or fill the memory. */

freshDataFolder();

const svg = (content: string): Buffer =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="600" height="600">${content}</svg>`);

async function bring(bytes: Uint8Array): Promise<{ status: number; message: string }> {
  const page = { width: 100, height: 50, unit: 'mm', dpi: 300 };
  const { id } = (await call(create, 'POST', {}, { body: { title: 'Test', page } })).json as { id: string };
  const headers = { 'content-length': String(bytes.length) };
  const { status, json } = await call(bringIn, 'POST', { id }, { body: bytes, query: '?name=heavy.svg', headers });
  return { status, message: (json as { error: { message: string } }).error.message };
}

/** Each shape is drawn twice by the next, 40 deep. */
const bomb = svg(
  `<defs><path id="u0" d="M0 0L9 9"/>${Array.from({ length: 40 }, (_, i) => `<g id="u${i + 1}"><use href="#u${i}"/><use href="#u${i}" x="1"/></g>`).join('')}</defs><use href="#u40"/>`,
);
/** Patterns of patterns, each of many tiles. */
const tiles = svg(
  `<defs>${Array.from({ length: 12 }, (_, i) => `<pattern id="p${i + 1}" width="0.9" height="0.9" patternUnits="userSpaceOnUse"><circle r="3" stroke="red" stroke-dasharray="0.001" fill="${i ? `url(#p${i})` : 'red'}"/></pattern>`).join('')}</defs><rect width="600" height="600" fill="url(#p12)"/>`,
);

describe('refused with words', () => {
  test.each([
    [
      '30 filters of noise',
      svg(
        `<filter id="f">${'<feTurbulence numOctaves="9"/>'.repeat(30)}</filter><rect width="600" height="600" filter="url(#f)"/>`,
      ),
    ],
    ['a filter under another prefix', svg('<s:filter xmlns:s="http://www.w3.org/2000/svg" id="f"/>')],
    ['a filter in a style', svg('<rect width="600" height="600" style="fill:red;filter : blur(400px)"/>')],
    ['a filter as an attribute', svg('<rect width="600" height="600" filter="blur(400px)"/>')],
  ])('%s', async (_, bytes) => {
    expect(await bring(bytes)).toEqual({ status: 415, message: expect.stringContaining('filters') });
    expect(await bring(gzipSync(bytes))).toEqual({ status: 415, message: expect.stringContaining('filters') });
  });

  test('a packed SVG that unpacks to very much', async () => {
    const large = gzipSync(Buffer.concat([Buffer.from('<svg>'), Buffer.alloc(64 * 1024 * 1024, 32)]), { level: 9 });
    expect(large.length).toBeLessThan(300_000);
    expect(await bring(large)).toEqual({ status: 413, message: expect.stringContaining('12 MB') });
  });

  test('packed bytes that hold no SVG, are packed twice, or are cut short', async () => {
    const good = gzipSync(svg('<rect/>'));
    for (const bytes of [
      gzipSync('no picture at all'),
      gzipSync(good),
      good.subarray(0, 40),
      Buffer.from([0x1f, 0x8b]),
    ])
      expect(await bring(bytes)).toEqual({ status: 400, message: expect.stringContaining('damaged') });
  });

  test('what takes too long to draw is given up, and four at once are all answered; nothing of them stays', async () => {
    const answers = await Promise.all(
      [bomb, tiles, bomb, tiles].map((b, i) => bring(Buffer.concat([b, Buffer.from(`<!--${i}-->`)]))),
    );
    for (const { status, message } of answers) {
      expect([400, 413, 503]).toContain(status);
      expect(message).toContain('Nothing was brought in');
    }
    for (const place of ['pictures', 'incoming']) expect(readdirSync(folder(place))).toEqual([]);
  });
});

test('a filter that is none does no harm', async () => {
  const page = { width: 100, height: 50, unit: 'mm', dpi: 300 };
  const { id } = (await call(create, 'POST', {}, { body: { title: 'Test', page } })).json as { id: string };
  const body = svg(
    '<rect width="60" height="60" filter="none" style="filter:none" color-interpolation-filters="sRGB"/>',
  );
  expect((await call(bringIn, 'POST', { id }, { body })).status).toBe(201);
});

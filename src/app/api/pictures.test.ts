import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import path from 'node:path';
import { crc32, deflateSync, gzipSync } from 'node:zlib';
import sharp from 'sharp';
import type { Drawing, Reference } from '@/core';
import { correctReference } from '@/core/edits/references';
import { dataFolder } from '@/server/place';
import { canPhoto } from '@/server/simulated/pictures/canPhoto';
import { pearScan } from '@/server/simulated/pictures/pearScan';
import { call, freshDataFolder } from '@/server/test/dataFolder';
import { POST as create } from './drawings/route';
import { GET as read } from './drawings/[id]/route';
import { POST as change } from './drawings/[id]/changes/route';
import { GET as save } from './drawings/[id]/export/route';
import { POST as bringIn } from './drawings/[id]/references/route';
import { GET as readPicture } from './pictures/[hash]/route';

freshDataFolder();

const page = { width: 100, height: 50, unit: 'mm', dpi: 300 };

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

/** A white PNG of one bit a pixel, written by hand: its bytes are few, its pixels are not. */
function oneBitPng(width: number, height: number): Uint8Array {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const frame = Buffer.alloc(8);
    frame.writeUInt32BE(data.length, 0);
    frame.writeUInt32BE(crc32(body), 4);
    return Buffer.concat([frame.subarray(0, 4), body, frame.subarray(4)]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header[8] = 1;
  const rows = deflateSync(Buffer.alloc((Math.ceil(width / 8) + 1) * height), { level: 1 });
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
    chunk('IHDR', header),
    chunk('IDAT', rows),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
describe('pictures', () => {
  test('the bytes are kept as they came; the reference is fitted, dimmed and locked', async () => {
    const { id } = await newDrawing();
    const bytes = await picture(800, 300).png().toBuffer();
    const { json, status } = await bring(id, bytes, '?name=A%20scan.png');
    const { reference } = json as { reference: Reference };
    expect(status).toBe(201);
    expect(reference).toMatchObject({
      name: 'A scan.png',
      pixelWidth: 800,
      pixelHeight: 300,
      dim: 0.4,
      locked: true,
      visible: true,
      picture: createHash('sha256').update(bytes).digest('hex'),
    });
    expect((await opened(id)).drawing.references).toEqual([reference]);
    const original = await call(readPicture, 'GET', { hash: reference.picture });
    expect(Buffer.from(await original.response.arrayBuffer()).equals(bytes)).toBe(true);
    expect(original.response.headers.get('content-type')).toBe('image/png');
  });

  test('it can be taken in without being placed', async () => {
    const { id } = await newDrawing();
    const { json } = await bring(id, await picture(10, 20).png().toBuffer(), '?name=a&place=0');
    expect(json).toMatchObject({ reference: { pixelWidth: 10, pixelHeight: 20 } });
    expect((await opened(id)).revision).toBe(0);
  });

  test('EXIF orientation is honoured, in the figures and in what is shown', async () => {
    const { id } = await newDrawing();
    const left = await picture(60, 40)
      .composite([
        {
          input: await sharp({ create: { width: 30, height: 40, channels: 3, background: '#ff0000' } })
            .png()
            .toBuffer(),
          left: 0,
          top: 0,
        },
      ])
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const { reference } = (await bring(id, left)).json as { reference: Reference };
    expect([reference.pixelWidth, reference.pixelHeight]).toEqual([40, 60]);
    const shown = await call(readPicture, 'GET', { hash: reference.picture }, { query: '?size=thumb' });
    const { data, info } = await sharp(Buffer.from(await shown.response.arrayBuffer()))
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([40, 60]);
    // Turned a quarter clockwise, the red left half lies on top.
    expect([data[(5 * 40 + 20) * 3] > 200, data[(55 * 40 + 20) * 3] > 200]).toEqual([true, false]);
  });

  describe('pictures of many kinds come out right', () => {
    const shown = async (
      bytes: Uint8Array,
    ): Promise<{ reference: Reference; pixel: (x: number, y: number) => number[] }> => {
      const { id } = await newDrawing();
      const { json, status } = await bring(id, bytes, '?name=x');
      expect([status, status === 201 ? null : json]).toEqual([201, null]);
      const { reference } = json as { reference: Reference };
      const { response } = await call(readPicture, 'GET', { hash: reference.picture }, { query: '?size=screen' });
      const image = sharp(Buffer.from(await response.arrayBuffer()));
      const { data, info } = await image
        .removeAlpha()
        .toColourspace('srgb')
        .raw()
        .toBuffer({ resolveWithObject: true });
      return { reference, pixel: (x, y) => [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)] };
    };
    const near = (found: number[], wanted: number[]): void =>
      found.forEach((v, i) => expect(Math.abs(v - wanted[i])).toBeLessThan(14));
    const plain = () => picture(40, 30);

    test.each([
      ['gif', () => plain().gif().toBuffer()],
      ['tiff', () => plain().tiff().toBuffer()],
      ['avif', () => plain().avif({ quality: 90 }).toBuffer()],
      ['webp', () => plain().webp().toBuffer()],
      ['CMYK jpeg', () => plain().toColourspace('cmyk').jpeg({ quality: 95 }).toBuffer()],
      ['16-bit png', () => plain().toColourspace('rgb16').png().toBuffer()],
      ['16-bit tiff', () => plain().toColourspace('rgb16').tiff({ compression: 'lzw' }).toBuffer()],
    ])('%s', async (_, bytes) => {
      const { reference, pixel } = await shown(await bytes());
      expect([reference.pixelWidth, reference.pixelHeight]).toEqual([40, 30]);
      near(pixel(20, 15), [0x88, 0x99, 0x77]);
    });

    test('of an animation the first frame', async () => {
      const frames = await Promise.all(
        ['#ff0000', '#0000ff'].map((background) =>
          sharp({ create: { width: 20, height: 20, channels: 3, background } })
            .png()
            .toBuffer(),
        ),
      );
      const bytes = await sharp(frames, { join: { animated: true } })
        .gif({ delay: [100, 100] })
        .toBuffer();
      const { reference, pixel } = await shown(bytes);
      expect(reference.pixelHeight).toBe(20);
      near(pixel(10, 10), [255, 0, 0]);
    });

    test('an SVG is drawn as a picture: nothing in it is run or fetched, and its bytes are only handed out to be kept', async () => {
      const text =
        '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="30" height="20"><script>throw 1</script><rect width="30" height="20" fill="#00ff00"/><image xlink:href="file:///etc/hostname" width="9" height="9"/><image xlink:href="http://127.0.0.1:9/x.png" width="9" height="9"/></svg>';
      const { reference, pixel } = await shown(new TextEncoder().encode(text));
      expect(reference.pixelWidth / reference.pixelHeight).toBeCloseTo(1.5, 2);
      near(pixel(100, 100), [0, 255, 0]);
      const original = await call(readPicture, 'GET', { hash: reference.picture });
      expect(await original.response.text()).toBe(text);
      expect(original.response.headers.get('content-disposition')).toContain('attachment');
      expect(original.response.headers.get('content-security-policy')).toContain('sandbox');
    });

    test('a packed SVG is unpacked, and one with a byte order mark is read', async () => {
      const text =
        '<svg xmlns="http://www.w3.org/2000/svg" width="30" height="20"><rect width="30" height="20" fill="#00ff00"/></svg>';
      for (const bytes of [gzipSync(text), Buffer.from(`\ufeff${text}`)])
        near((await shown(bytes)).pixel(100, 100), [0, 255, 0]);
    });

    test('a great deal of EXIF does no harm', async () => {
      const bytes = await plain()
        .withExif({ IFD0: { ImageDescription: 'x'.repeat(60_000), Copyright: 'made up' } })
        .jpeg()
        .toBuffer();
      near((await shown(bytes)).pixel(5, 5), [0x88, 0x99, 0x77]);
    });

    test('a picture with corrections is exported as it is shown', async () => {
      const { id, drawing } = await newDrawing();
      await bring(id, await picture(80, 40).png().toBuffer());
      const { drawing: placed, revision } = await opened(id);
      const list = [
        { kind: 'crop', on: true, left: 0.5, top: 0, right: 0, bottom: 0 },
        { kind: 'invert', on: true },
      ] as const;
      const edit = correctReference(placed, placed.references[0].id, list, 'Correct');
      const answer = await call(change, 'POST', { id }, { body: { base: revision, changes: [{ id: 'k', ...edit }] } });
      expect(answer.status).toBe(200);
      const now = (await opened(id)).drawing.references[0];
      expect(now.width / now.height).toBeCloseTo(1, 6);
      const file = await call(save, 'GET', { id }, { query: '?format=png&dpi=40&reference=1&ground=page' });
      const { data, info } = await sharp(Buffer.from(await file.response.arrayBuffer()))
        .removeAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      const i = (Math.floor(info.height / 2) * info.width + Math.floor(info.width / 2)) * 3;
      // The inverse of the picture's colour, seen at 60 % over the page's ground.
      near(
        [...data.subarray(i, i + 3)],
        [0x77, 0x66, 0x88].map((v) => v * 0.6 + 254 * 0.4),
      );
      expect(drawing.references).toEqual([]);
    });
  });

  test('what is not fit is refused with a reason, and the drawing is as it was', async () => {
    const { id } = await newDrawing();
    const png = await picture(900, 900).png().toBuffer();
    const jpeg = await picture(900, 900).jpeg().toBuffer();
    const bomb = await sharp({ create: { width: 12_000, height: 10_400, channels: 3, background: '#ffffff' } })
      .png({ compressionLevel: 9 })
      .toBuffer();
    const bigOneBit = oneBitPng(30_000, 30_000);
    const cases: [string, Uint8Array, number, string, Record<string, string>?][] = [
      ['empty', new Uint8Array(), 400, 'empty'],
      ['text under a picture’s name', new TextEncoder().encode('not a picture at all'), 415, 'not-a-picture'],
      [
        'an SVG that is no XML',
        new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg" width="9"><g>'),
        400,
        'broken',
      ],
      ['900 megapixels in a few bytes', bigOneBit, 413, 'too-many-pixels'],
      ['a PNG cut short', png.subarray(0, png.length / 2), 400, 'broken'],
      ['a JPEG cut short', jpeg.subarray(0, jpeg.length / 2), 400, 'broken'],
      ['125 megapixels', bomb, 413, 'too-many-pixels'],
      ['more bytes than are taken', png, 413, 'too-large', { 'content-length': String(61 * 1024 * 1024) }],
      ['fewer bytes than announced', png, 400, 'cut-short', { 'content-length': String(png.length + 10) }],
    ];
    for (const [what, bytes, status, code, headers] of cases) {
      const answer = await bring(id, bytes, '?name=x.png', headers);
      expect([what, answer.status, answer.json]).toMatchObject([
        what,
        status,
        { error: { code, message: expect.stringMatching(/nothing was brought in/i) } },
      ]);
    }
    expect((await opened(id)).revision).toBe(0);
    expect(readdirSync(path.join(dataFolder(), 'incoming'))).toEqual([]);
  });
});

test('a sketch is gone by its ink, a photo by its edges', async () => {
  const { id } = await newDrawing();
  const targetOf = async (body: Buffer): Promise<string> => {
    const { json } = await bring(id, body, '?name=p.png&place=0');
    return (json as { reference: Reference }).reference.target;
  };
  expect(await targetOf(await pearScan({ width: 800, height: 1135 }))).toBe('ink');
  expect(await targetOf(await canPhoto())).toBe('edge');
  expect(await targetOf(await picture(300, 200).png().toBuffer())).toBe('ink');
}, 60_000);

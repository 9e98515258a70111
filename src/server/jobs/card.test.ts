import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { readSvg, type Drawing } from '@/core';
import { firstDelivery, type Delivery } from '@/core/deliver/delivery';
import { laidReference } from '@/core/test/laidReference';
import { svgFeatures } from '@/core/test/svg/features';
import { card } from './card';
import { exportedFile } from './exportedFile';
import type { PictureFiles } from './seenPictures';

const place = mkdtempSync(path.join(tmpdir(), 'yellow-quill-card-'));
afterAll(() => rmSync(place, { recursive: true, force: true }));

const SIDE = 400;
const wanted: Delivery = { ...firstDelivery, format: 'png', ground: true, reference: true };

const pixels = (bytes: Uint8Array): Promise<Buffer> =>
  // Each renderer smooths edges and pictures in its own way: they are looked at from a little further off.
  sharp(bytes).flatten({ background: '#fffefb' }).removeAlpha().blur(1.5).raw().toBuffer();

function brought(text: string): { drawing: Drawing; files: PictureFiles } {
  const { drawing, pictures } = readSvg(text);
  const files: Record<string, string> = {};
  for (const { hash, bytes } of pictures) {
    files[hash] = path.join(place, hash);
    writeFileSync(files[hash], bytes);
  }
  return { drawing, files };
}

/** Which share of a card's pixels is not as in the file that is delivered of the same page. */
async function unlike(drawing: Drawing, files: PictureFiles): Promise<number> {
  const onPaper = { ...drawing, page: { ...drawing.page, ground: drawing.page.ground ?? '#fffefb' } };
  const made = await card(drawing, SIDE, files, place);
  const { width, height } = await sharp(made).metadata();
  const file = await exportedFile(onPaper, wanted, { title: '', size: { width, height } }, files, place);
  const [a, b] = await Promise.all([pixels(made), pixels(file)]);
  expect(a.length).toBe(b.length);
  let changed = 0;
  for (let i = 0; i < a.length; i += 3) if ([0, 1, 2].some((k) => Math.abs(a[i + k] - b[i + k]) > 32)) changed++;
  return changed / (a.length / 3);
}

test.each(svgFeatures.filter(([, text]) => brought(text).drawing.sheets.length > 0))(
  'a card shows %s as a delivered file does',
  async (_, text) => {
    const { drawing, files } = brought(text);
    expect(await unlike(drawing, files)).toBeLessThan(0.01);
  },
);
test('references lie dimmed below the art, and what is blended in the art does not touch them', async () => {
  const { drawing } = brought(
    '<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><rect x="50" width="50" height="100" fill="#ffff00" style="mix-blend-mode:multiply"/></svg>',
  );
  const reference = laidReference(drawing.page, 100, 100);
  const scan = path.join(place, 'scan.png');
  await sharp({ create: { width: 100, height: 100, channels: 3, background: '#0000ff' } }).toFile(scan);
  const files = { [reference.picture]: scan };
  const made = await card({ ...drawing, dim: 0.5, references: [reference] }, SIDE, files, place);
  const { data } = await sharp(made).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const at = (x: number): number[] => [...data.subarray((200 * SIDE + x) * 3, (200 * SIDE + x) * 3 + 3)];
  const near = (is: number[], want: number[]): void =>
    is.forEach((v, k) => expect(Math.abs(v - want[k])).toBeLessThan(8));
  near(at(300), [255, 255, 0]);
  const [r, g, b] = at(100);
  expect([r < 200, r > 60, b > 240]).toEqual([true, true, true]);
  expect(Math.abs(r - g)).toBeLessThan(8);
});

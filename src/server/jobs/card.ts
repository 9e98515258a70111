import { createCanvas, loadImage, Path2D } from '@napi-rs/canvas';
import sharp from 'sharp';
import type { Drawing } from '@/core';
import { leavesOf, referencesOf, sceneOf } from '@/core/scene/scene';
import { paintLeaves } from '@/painting/paintLeaves';
import { firstDelivery } from '@/core/deliver/delivery';
import { picturesOf, type PictureFiles } from './seenPictures';

/** Jobs paint as the bench's tiles do, on canvases of their own. */
Object.assign(globalThis, {
  Path2D,
  OffscreenCanvas: function OffscreenCanvas(width: number, height: number) {
    return createCanvas(width, height);
  },
});

const PAPER = '#fffefb';
const QUALITY = 82;

/**
 * A drawing's page with its references and lines as small as on a card, `width` px at most either way. WebP. Painted as it is on
 * the bench: writing an SVG for a renderer takes six times as long where there are thousands of lines.
 */
export async function card(drawing: Drawing, most: number, files: PictureFiles, derived: string): Promise<Uint8Array> {
  const { width: w, height: h, ground } = drawing.page;
  const scale = most / Math.max(w, h);
  const width = Math.max(1, Math.round(w * scale));
  const height = Math.max(1, Math.round(h * scale));
  const canvas = () => {
    const made = new OffscreenCanvas(width, height);
    const ctx = made.getContext('2d')!;
    ctx.scale(width / w, height / h);
    return { made, ctx };
  };
  const [under, art] = [referencesOf(drawing), sceneOf(drawing)];
  const bytes = await picturesOf({ under, art }, firstDelivery, files, derived);
  const bitmaps = new Map<string, ImageBitmap>();
  for (const [id, file] of bytes) bitmaps.set(id, (await loadImage(file)) as unknown as ImageBitmap);

  const page = canvas();
  page.ctx.fillStyle = ground ?? PAPER;
  page.ctx.fillRect(0, 0, w, h);
  const pictures = ({ placed }: { placed: { id: string } }) => bitmaps.get(placed.id) ?? null;
  paintLeaves(page.ctx, leavesOf(under), scale, pictures);
  // What is blended in the art does not touch the references.
  const own = canvas();
  paintLeaves(own.ctx, leavesOf(art), scale, pictures);
  page.ctx.resetTransform();
  page.ctx.drawImage(own.made, 0, 0);
  const { data } = page.ctx.getImageData(0, 0, width, height);
  return sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .webp({ quality: QUALITY })
    .toBuffer();
}

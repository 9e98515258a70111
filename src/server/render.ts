import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { writeSvg, type Drawing } from '@/core';
import { viewOf } from '@/core/formats/svg/writeSvg';
import { leavesOf, sceneOf, type PictureNode } from '@/core/scene/scene';
import { pixelsAt } from '@/core/drawing/unit';
import { correctedFile } from './corrected';
import type { ShownSize } from './pictures';
import { Problem } from './problem';

const MOST_SIDE = 30_000;
const MOST_PIXELS = 200_000_000;
const CARD_WIDTH = 480;

export type RenderOptions = { scope: 'page' | 'drawing'; dpi: number; ground: 'none' | 'page'; reference: boolean };

/** How large a drawing comes out, in pixels. */
export function pixelSize(
  drawing: Drawing,
  { scope, dpi }: Pick<RenderOptions, 'scope' | 'dpi'>,
): { width: number; height: number } {
  const box = viewOf(drawing, scope);
  return { width: pixelsAt(box.maxX - box.minX, dpi), height: pixelsAt(box.maxY - box.minY, dpi) };
}

/**
 * A drawing as PNG at `dpi`, which is noted in the file.
 * @throws Problem 413 for a size beyond what can be drawn.
 */
export async function renderPng(drawing: Drawing, options: RenderOptions): Promise<Buffer> {
  const { width, height } = pixelSize(drawing, options);
  if (Math.max(width, height) > MOST_SIDE || width * height > MOST_PIXELS) {
    throw new Problem(
      413,
      'too-large',
      `At ${options.dpi} dpi the picture would be ${width} x ${height} px, which is too large. Choose a lower dpi.`,
    );
  }
  return raster(drawing, options, width, height).then((image) =>
    image.withMetadata({ density: options.dpi }).png().toBuffer(),
  );
}

async function raster(
  drawing: Drawing,
  options: Omit<RenderOptions, 'dpi'>,
  width: number,
  height: number,
  size: ShownSize = 'screen',
) {
  const svg = await selfContainedSvg(drawing, options, size);
  const box = viewOf(drawing, options.scope);
  // The density at which one page unit becomes as many pixels as are wanted.
  const density = Math.min(100_000, Math.max(1, (96 * width) / (box.maxX - box.minX)));
  const image = sharp(Buffer.from(svg), { density, limitInputPixels: false, unlimited: true }).resize(width, height, {
    fit: 'fill',
  });
  // The ground's own edge would be see-through where the page does not end on a whole pixel.
  return options.ground === 'page' && drawing.page.ground ? image.flatten({ background: drawing.page.ground }) : image;
}

/** The drawing as SVG that needs no other file. */
export async function selfContainedSvg(
  drawing: Drawing,
  { scope, ground, reference }: Omit<RenderOptions, 'dpi'>,
  size: ShownSize = 'screen',
): Promise<string> {
  const hrefs = new Map<string, string>();
  for (const { node } of leavesOf(sceneOf(drawing, { references: reference })))
    if (node.kind === 'picture') hrefs.set(node.placed.id, await dataUri(node.placed, size));
  return writeSvg(drawing, {
    scope,
    ground: ground === 'page',
    reference,
    pictureHref: (r) => hrefs.get(r.id) ?? '',
  });
}

async function dataUri(placed: PictureNode['placed'], size: ShownSize): Promise<string> {
  const bytes = await readFile(await correctedFile(placed, size));
  const mime = bytes[0] === 0x89 ? 'image/png' : 'image/jpeg';
  return `data:${mime};base64,${bytes.toString('base64')}`;
}

/** The picture on a drawing's card: its page with references and lines. WebP. */
export async function renderCard(drawing: Drawing): Promise<Buffer> {
  const { width, height } = drawing.page;
  const k = CARD_WIDTH / Math.max(width, height);
  const image = await raster(
    drawing,
    { scope: 'page', ground: 'page', reference: true },
    Math.max(1, Math.round(width * k)),
    Math.max(1, Math.round(height * k)),
    'quarter',
  );
  return image.flatten({ background: '#fffefb' }).webp({ quality: 82 }).toBuffer();
}

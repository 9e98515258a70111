import { readFile } from 'node:fs/promises';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { writeSvg, type Drawing } from '@/core';
import { paintPdf, POINTS } from '@/core/formats/pdf';
import type { PdfDocument } from '@/core/formats/pdfGroups';
import { dataAddress } from '@/core/formats/svg/pictures';
import { viewOf } from '@/core/formats/svg/writeSvg';
import { leavesOf, sceneOf, type PictureNode } from '@/core/scene/scene';
import type { FileFormat, RasterFormat } from '@/core/formats/fileFormats';
import { correctedFile } from './corrected';

export type ExportOptions = {
  readonly format: FileFormat;
  readonly scope: 'page' | 'drawing';
  readonly ground: 'none' | 'page';
  readonly reference: boolean;
  /** Of a picture of pixels; noted in the file. */
  readonly dpi: number;
  /** Of one that loses something, 1…100. */
  readonly quality: number;
  readonly title: string;
  /** How large a picture of pixels is; of other kinds it does not count. */
  readonly size: { readonly width: number; readonly height: number };
};

/** Where the pictures of a drawing lie, by their hash, upright and as large as they are wanted. */
export type PictureFiles = Readonly<Record<string, string>>;

/** A drawing as a file. `derived` is the folder in which corrected pictures are kept. */
export async function exportedFile(
  drawing: Drawing,
  options: ExportOptions,
  files: PictureFiles,
  derived: string,
): Promise<Uint8Array> {
  const pictures = await picturesOf(drawing, options.reference, files, derived);
  if (options.format === 'pdf') return pdf(drawing, options, pictures);
  const svg = writeSvg(drawing, {
    scope: options.scope,
    ground: options.ground === 'page',
    reference: options.reference,
    pictureHref: (r) => dataAddress(pictures.get(r.id) ?? new Uint8Array()),
  });
  return options.format === 'svg' ? new TextEncoder().encode(svg) : raster(drawing, svg, options);
}

/** The bytes of all placed pictures that are seen, as they are shown. */
async function picturesOf(
  drawing: Drawing,
  references: boolean,
  files: PictureFiles,
  derived: string,
): Promise<Map<string, Buffer>> {
  const found = new Map<string, Buffer>();
  for (const { node } of leavesOf(sceneOf(drawing, { references }))) {
    if (node.kind !== 'picture' || found.has(node.placed.id)) continue;
    const plain = files[node.placed.picture];
    if (plain) found.set(node.placed.id, await readFile(await correctedFile(plain, node.placed, derived)));
  }
  return found;
}

function pdf(drawing: Drawing, options: ExportOptions, pictures: ReadonlyMap<string, Buffer>): Promise<Uint8Array> {
  const box = viewOf(drawing, options.scope);
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const doc = new PDFDocument({
    size: [width * POINTS, height * POINTS],
    margin: 0,
    info: { Title: options.title, Producer: 'Yellow Quill', Creator: 'Yellow Quill' },
    // What is drawn with groups and layers is of this version on.
    pdfVersion: '1.7',
  }) as unknown as PdfDocument;
  const chunks: Buffer[] = [];
  const done = new Promise<Uint8Array>((resolve, reject) => {
    doc.on('data', (c: Buffer) => chunks.push(c));
    doc.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    doc.on('error', reject);
  });
  const { ground } = drawing.page;
  if (options.ground === 'page' && ground) doc.rect(0, 0, width * POINTS, height * POINTS).fill(ground);
  const bytesOf = ({ id }: PictureNode['placed']): Uint8Array | null => pictures.get(id) ?? null;
  paintPdf(doc, sceneOf(drawing, { references: options.reference }), box, bytesOf);
  doc.end();
  return done;
}

async function raster(drawing: Drawing, svg: string, options: ExportOptions): Promise<Uint8Array> {
  const { format, scope, ground, dpi, quality, size } = options;
  const { width, height } = size;
  const box = viewOf(drawing, scope);
  // The density at which one page unit becomes as many pixels as are wanted.
  const density = Math.min(100_000, Math.max(1, (96 * width) / (box.maxX - box.minX)));
  let image = sharp(Buffer.from(svg), { density, limitInputPixels: false, unlimited: true }).resize(width, height, {
    fit: 'fill',
  });
  // The ground's own edge would be see-through where the page does not end on a whole pixel; JPEG has nothing see-through.
  const under = ground === 'page' ? drawing.page.ground : null;
  if (under || format === 'jpeg') image = image.flatten({ background: under ?? '#ffffff' });
  image = image.withIccProfile('srgb').withMetadata({ density: dpi });
  const encoded = {
    png: () => image.png(),
    jpeg: () => image.jpeg({ quality, chromaSubsampling: '4:4:4' }),
    webp: () => image.webp({ quality }),
    avif: () => image.avif({ quality, effort: 2 }),
    tiff: () => image.tiff({ compression: 'lzw', xres: dpi / 25.4, yres: dpi / 25.4 }),
  }[format as RasterFormat]();
  return new Uint8Array(await encoded.toBuffer());
}

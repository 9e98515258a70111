import PDFDocument from 'pdfkit';
import sharp, { type Sharp } from 'sharp';
import type { Drawing } from '@/core';
import { composed } from '@/core/deliver/composed';
import type { Composition } from '@/core/deliver/composition';
import { lookOf, type Delivery } from '@/core/deliver/delivery';
import { paintPdf, POINTS } from '@/core/formats/pdf';
import type { PdfDocument } from '@/core/formats/pdfGroups';
import { writeComposition } from '@/core/formats/svg/writeSvg';
import type { PictureNode } from '@/core/scene/scene';
import type { RasterFormat } from '@/core/deliver/fileFormats';
import { holdsBox } from '@/core/geometry/box';
import { lettering } from './lettering';
import { hrefsOf, picturesOf, type PictureFiles } from './seenPictures';

export type FileOptions = {
  readonly title: string;
  /** How large a picture of pixels is; of other kinds it does not count. */
  readonly size: { readonly width: number; readonly height: number };
  /** Drawings that share a paper with the one. */
  readonly beside?: readonly Drawing[];
};

/** A drawing as a file. `derived` is the folder in which corrected pictures are kept. */
export async function exportedFile(
  drawing: Drawing,
  wanted: Delivery,
  options: FileOptions,
  files: PictureFiles,
  derived: string,
): Promise<Uint8Array> {
  const { title, beside } = options;
  const composition = composed(drawing, wanted, {
    ...(beside && { beside }),
    ...(wanted.paper?.title && { lettering: lettering(title) }),
  });
  const pictures = await picturesOf(composition, wanted, files, derived);
  if (wanted.format === 'pdf') return pdf(composition, title, pictures);
  const svg = writeComposition(composition, lookOf(wanted), {
    pictureHref: hrefsOf(pictures),
    ...(wanted.format === 'svg' && { title }),
  });
  return wanted.format === 'svg' ? new TextEncoder().encode(svg) : raster(composition, svg, wanted, options);
}

function pdf(composition: Composition, title: string, pictures: ReadonlyMap<string, Buffer>): Promise<Uint8Array> {
  const { box } = composition;
  const doc = new PDFDocument({
    size: [(box.maxX - box.minX) * POINTS, (box.maxY - box.minY) * POINTS],
    margin: 0,
    info: { Title: title, Producer: 'Yellow Quill', Creator: 'Yellow Quill' },
    // What is drawn with groups and layers is of this version on.
    pdfVersion: '1.7',
  }) as unknown as PdfDocument;
  const chunks: Buffer[] = [];
  const done = new Promise<Uint8Array>((resolve, reject) => {
    doc.on('data', (c: Buffer) => chunks.push(c));
    doc.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    doc.on('error', reject);
  });
  const bytesOf = ({ id }: PictureNode['placed']): Uint8Array | null => pictures.get(id) ?? null;
  paintPdf(doc, composition, bytesOf);
  doc.end();
  return done;
}

async function raster(
  composition: Composition,
  svg: string,
  { format, dpi, quality }: Delivery,
  { size }: FileOptions,
): Promise<Uint8Array> {
  const painted = rasterized(composition, svg, size, format === 'jpeg');
  const image = painted.withIccProfile('srgb').withMetadata({ density: dpi });
  const encoded = {
    png: () => image.png(),
    jpeg: () => image.jpeg({ quality, chromaSubsampling: '4:4:4' }),
    webp: () => image.webp({ quality }),
    avif: () => image.avif({ quality, effort: 2 }),
    tiff: () => image.tiff({ compression: 'lzw', xres: dpi / 25.4, yres: dpi / 25.4 }),
  }[format as RasterFormat]();
  return new Uint8Array(await encoded.toBuffer());
}

/** A composition that was written as SVG in pixels; on white where it is to be `isOpaque` and has no ground. */
export function rasterized(
  { box, ground, unit }: Composition,
  svg: string,
  { width, height }: FileOptions['size'],
  isOpaque: boolean,
): Sharp {
  // The density at which one page unit becomes as many pixels as are wanted: the renderer takes px for points.
  const perUnit = unit === 'px' ? 72 : 96;
  const density = Math.min(100_000, Math.max(1, (perUnit * width) / (box.maxX - box.minX)));
  const image = sharp(Buffer.from(svg), { density, limitInputPixels: false, unlimited: true }).resize(width, height, {
    fit: 'fill',
  });
  // The ground's own edge would be see-through where the page does not end on a whole pixel.
  const under = ground && holdsBox(ground.box, box) ? ground.colour : null;
  return under || isOpaque ? image.flatten({ background: under ?? '#ffffff' }) : image;
}

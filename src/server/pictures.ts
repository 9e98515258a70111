import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream, existsSync } from 'node:fs';
import { open, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { eq } from 'drizzle-orm';
import sharp, { type Sharp } from 'sharp';
import { INK_LONGEST, inkOrEdge } from '@/core/raster/inkOrEdge';
import { database } from './database';
import { isKept, keepDerived } from './derived';
import { sha256Of } from './keeping/digest';
import { synced } from './keeping/durable';
import { namesIn } from './keeping/places';
import { folder } from './place';
import { notFound, Problem } from './problem';
import { looksLikeSvg, svgAsPng } from './svgPicture';
import { pictures } from './tables';

export const MOST_BYTES = 60 * 1024 * 1024;
export const MOST_PIXELS = 120_000_000;

/** The sizes a picture is shown in, by the length of its longer side in pixels. */
export const shownSizes = { screen: 4096, half: 2048, quarter: 1024, thumb: 320 } as const;
export type ShownSize = keyof typeof shownSizes;

export type Picture = typeof pictures.$inferSelect;

const MIME: Record<string, string> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
  gif: 'image/gif',
  tiff: 'image/tiff',
  heif: 'image/avif',
  svg: 'image/svg+xml',
};

const MOST_SECONDS = 30;

/**
 * Takes a picture in: its bytes are kept as they came, under their hash. It is decoded once, so that what is broken is
 * refused here and not later.
 * @throws Problem 400 empty or cut short, 413 too large, 415 not a picture of a known kind.
 */
export async function takePicture(
  body: ReadableStream<Uint8Array> | null,
  declaredLength: number | null,
): Promise<Picture> {
  if (declaredLength !== null && declaredLength > MOST_BYTES) throw tooManyBytes();
  if (!body) throw new Problem(400, 'empty', 'The file is empty. Nothing was brought in.');
  const temporary = path.join(folder('incoming'), randomUUID());
  try {
    const { hash, bytes } = await receive(body, temporary);
    if (bytes === 0) throw new Problem(400, 'empty', 'The file is empty. Nothing was brought in.');
    if (declaredLength !== null && bytes !== declaredLength) {
      throw new Problem(
        400,
        'cut-short',
        `Only ${bytes} of ${declaredLength} bytes arrived. Nothing was brought in; try again.`,
      );
    }
    const known = database().select().from(pictures).where(eq(pictures.hash, hash)).get();
    if (known && existsSync(originalFile(hash))) return known;
    const { drawn, ...seen } = await inspect(temporary);
    const handle = await open(temporary, 'r');
    await handle.sync();
    await handle.close();
    await rename(temporary, originalFile(hash));
    synced(folder('pictures'));
    if (drawn) await keepDerived(drawnFile(hash), (to) => writeFile(to, drawn));
    const picture = { hash, bytes, ...seen, at: Date.now() };
    database().insert(pictures).values(picture).onConflictDoNothing().run();
    return picture;
  } finally {
    await rm(temporary, { force: true });
  }
}

const tooManyBytes = () =>
  new Problem(
    413,
    'too-large',
    'The file is larger than 60 MB. Nothing was brought in; save it smaller and try again.',
  );

async function receive(body: ReadableStream<Uint8Array>, file: string): Promise<{ hash: string; bytes: number }> {
  const hash = createHash('sha256');
  let bytes = 0;
  const gauge = new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      hash.update(chunk);
      done(bytes > MOST_BYTES ? tooManyBytes() : null, chunk);
    },
  });
  await pipeline(Readable.fromWeb(body as never), gauge, createWriteStream(file));
  return { hash: hash.digest('hex'), bytes };
}

type Seen = Pick<Picture, 'mime' | 'width' | 'height' | 'dpi'> & { drawn?: Buffer };

async function inspect(file: string): Promise<Seen> {
  if (looksLikeSvg(await headOf(file))) {
    // From now on it is a picture.
    const drawn = await svgAsPng(file);
    const { width, height } = await sharp(drawn).metadata();
    return { mime: MIME.svg, width, height, dpi: null, drawn };
  }
  const header = await sharp(file, { limitInputPixels: false })
    .metadata()
    .catch(() => null);
  const mime = header && MIME[header.format];
  if (!header || !mime || header.format === 'svg' || (header.format === 'heif' && header.compression !== 'av1')) {
    throw new Problem(
      415,
      'not-a-picture',
      'This is not a picture of a kind that can be read (PNG, JPEG, WebP, GIF, TIFF, AVIF or SVG). Nothing was brought in.',
    );
  }
  if (header.width * header.height > MOST_PIXELS) {
    const million = Math.round((header.width * header.height) / 1e6);
    throw new Problem(
      413,
      'too-many-pixels',
      `The picture has ${million} megapixels; 120 are the most. Nothing was brought in; save it smaller and try again.`,
    );
  }
  try {
    await sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' })
      .timeout({ seconds: MOST_SECONDS })
      .resize(16, 16)
      .raw()
      .toBuffer();
  } catch {
    throw broken();
  }
  const { width, height } = header.autoOrient;
  return { mime, width, height, dpi: header.density && header.density > 1 ? Math.round(header.density) : null };
}

const broken = (): Problem =>
  new Problem(400, 'broken', 'The picture is damaged or cut short. Nothing was brought in.');

async function headOf(file: string): Promise<Buffer> {
  const handle = await open(file, 'r');
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(4096), 0, 4096, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

const drawnFile = (hash: string): string => path.join(folder('derived'), `${hash}-drawn.png`);

/** A kept SVG as PNG: drawn when it was taken in, and again if that was thrown away. */
async function drawnSvg(hash: string): Promise<Buffer> {
  const known = await readFile(drawnFile(hash)).catch(() => null);
  if (known) return known;
  const drawn = await svgAsPng(originalFile(hash));
  await keepDerived(drawnFile(hash), (temporary) => writeFile(temporary, drawn));
  return drawn;
}

/** A kept picture, upright, ready to be worked on. Of an animation, the first frame. */
async function uprightPicture({ hash, mime }: Picture): Promise<Sharp> {
  if (mime === MIME.svg) return sharp(await drawnSvg(hash));
  return sharp(originalFile(hash), { limitInputPixels: MOST_PIXELS }).autoOrient();
}

/** What lines over a picture are measured against: its ink where it is a sketch, its edges where it is a photograph. */
export async function targetOf(picture: Picture): Promise<'ink' | 'edge'> {
  const size = { width: INK_LONGEST, height: INK_LONGEST, fit: 'inside', withoutEnlargement: true } as const;
  const { data, info } = await (
    await uprightPicture(picture)
  )
    .timeout({ seconds: MOST_SECONDS })
    .flatten({ background: '#ffffff' })
    .resize(size)
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const grey = Uint8Array.from({ length: width * height }, (_, i) => data[i * channels]);
  return inkOrEdge({ width, height, data: grey });
}

/**
 * Pictures that lie here and the database does not know (it has gone back, or rows of it were lost) are known again. A file that
 * is not what its name says is left alone. How many those were.
 */
export async function adoptPictures(): Promise<number> {
  const known = new Set(
    database()
      .select({ hash: pictures.hash })
      .from(pictures)
      .all()
      .map((p) => p.hash),
  );
  let adopted = 0;
  for (const hash of namesIn(folder('pictures'))) {
    if (known.has(hash) || !/^[0-9a-f]{64}$/.test(hash) || sha256Of(originalFile(hash)) !== hash) continue;
    const seen = await inspect(originalFile(hash)).catch(() => null);
    if (!seen) continue;
    const { drawn: _, ...rest } = seen;
    const { size: bytes } = await stat(originalFile(hash));
    database()
      .insert(pictures)
      .values({ hash, bytes, ...rest, at: Date.now() })
      .onConflictDoNothing()
      .run();
    adopted++;
  }
  return adopted;
}

export function pictureOf(hash: string): Picture {
  const picture = database().select().from(pictures).where(eq(pictures.hash, hash)).get();
  if (!picture) throw notFound('picture');
  return picture;
}

/** The file with a picture's bytes as they came. `hash` must have been checked to be one. */
export const originalFile = (hash: string): string => path.join(folder('pictures'), hash);

/** A file with a picture in full, upright, as PNG or JPEG: the one that came, where that is such a one. */
export async function uprightFile(hash: string): Promise<string> {
  const { mime } = pictureOf(hash);
  if (mime === MIME.png || mime === MIME.jpeg) {
    const { orientation = 1, space } = await sharp(originalFile(hash), { limitInputPixels: false }).metadata();
    if (orientation === 1 && space !== 'cmyk') return originalFile(hash);
  }
  return shownFile(hash, 'screen');
}

const making = new Map<string, Promise<string>>();

/** A file with the picture upright and no larger than asked for: made on first use, and again if thrown away. */
export async function shownFile(hash: string, size: ShownSize): Promise<string> {
  const { width, height } = pictureOf(hash);
  const file = path.join(folder('derived'), `${hash}-${size}.img`);
  if (await isKept(file)) return file;
  const underway = making.get(file);
  if (underway) return underway;
  const made = makeShown(pictureOf(hash), file, Math.min(shownSizes[size], Math.max(width, height))).finally(() =>
    making.delete(file),
  );
  making.set(file, made);
  return made;
}

async function makeShown(kept: Picture, file: string, longest: number): Promise<string> {
  const upright = await uprightPicture(kept);
  const { hasAlpha } = await upright.metadata();
  const picture = upright
    .resize({ width: longest, height: longest, fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb');
  const encoded = hasAlpha
    ? picture.png({ compressionLevel: 3 })
    : picture.jpeg({ quality: 92, chromaSubsampling: '4:4:4' });
  await keepDerived(file, (temporary) => encoded.toFile(temporary));
  return file;
}

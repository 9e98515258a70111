import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream, existsSync } from 'node:fs';
import { open, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { INK_LONGEST, inkOrEdge } from '@/core/raster/inkOrEdge';
import { database } from './database';
import { decoded, isClean, type Taken } from './decoding';
import { isKept, keepDerived } from './derived';
import { sendPicture } from './elsewhere/pictures';
import { sha256Of } from './keeping/digest';
import { synced } from './keeping/durable';
import { namesIn } from './keeping/places';
import { originalFile, soundOriginal } from './originals';
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
    const seen = await inspect(temporary, hash);
    const handle = await open(temporary, 'r');
    await handle.sync();
    await handle.close();
    await rename(temporary, originalFile(hash));
    synced(folder('pictures'));
    const picture = { hash, bytes, ...seen, at: Date.now() };
    database().insert(pictures).values(picture).onConflictDoNothing().run();
    await sendPicture(hash);
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

type Seen = Pick<Picture, 'mime' | 'width' | 'height' | 'dpi'>;

/**
 * What a file is; what is shown of it is made on the way, so that every pixel was decoded once before it is taken.
 * @throws Problem for what cannot be taken.
 */
async function inspect(file: string, hash: string): Promise<Seen> {
  if (looksLikeSvg(await headOf(file))) {
    // From now on it is a picture.
    const drawn = await svgAsPng(file);
    const { width, height } = await sharp(drawn).metadata();
    await keepDerived(drawnFile(hash), (to) => writeFile(to, drawn));
    return { mime: MIME.svg, width, height, dpi: null };
  }
  const taken = await decodedInto(file, hash);
  if (taken.refused === 'pixels')
    throw new Problem(
      413,
      'too-many-pixels',
      `The picture has ${Math.round(taken.pixels / 1e6)} megapixels; 120 are the most. Nothing was brought in; save it smaller and try again.`,
    );
  if (taken.refused === 'broken')
    throw new Problem(400, 'broken', 'The picture is damaged or cut short. Nothing was brought in.');
  const mime = taken.refused ? undefined : MIME[taken.format];
  if (taken.refused || !mime)
    throw new Problem(
      415,
      'not-a-picture',
      'This is not a picture of a kind that can be read (PNG, JPEG, WebP, GIF, TIFF, AVIF or SVG). Nothing was brought in.',
    );
  const { width, height, density } = taken;
  return { mime, width, height, dpi: density && density > 1 ? Math.round(density) : null };
}

/** Decodes a file, and keeps what is shown of it in its largest size. */
async function decodedInto(file: string, hash: string): Promise<Taken> {
  const temporary = `${shownPath(hash, 'screen')}.${randomUUID()}`;
  try {
    const taken = await decoded(file, temporary, shownSizes.screen, MOST_PIXELS);
    if (!taken.refused) await rename(temporary, shownPath(hash, 'screen'));
    return taken;
  } finally {
    await rm(temporary, { force: true });
  }
}

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
  const original = await soundOriginal(hash);
  if (!original) throw damaged();
  const drawn = await svgAsPng(original);
  await keepDerived(drawnFile(hash), (temporary) => writeFile(temporary, drawn));
  return drawn;
}

/** What lines over a picture are measured against: its ink where it is a sketch, its edges where it is a photograph. */
export async function targetOf({ hash }: Picture): Promise<'ink' | 'edge'> {
  const size = { width: INK_LONGEST, height: INK_LONGEST, fit: 'inside', withoutEnlargement: true } as const;
  const { data, info } = await sharp(await shownFile(hash, 'screen'))
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
  const known = new Set(knownPictures());
  let adopted = 0;
  for (const hash of namesIn(folder('pictures'))) {
    if (known.has(hash) || !/^[0-9a-f]{64}$/.test(hash) || sha256Of(originalFile(hash)) !== hash) continue;
    const seen = await inspect(originalFile(hash), hash).catch(() => null);
    if (!seen) continue;
    const { size: bytes } = await stat(originalFile(hash));
    database()
      .insert(pictures)
      .values({ hash, bytes, ...seen, at: Date.now() })
      .onConflictDoNothing()
      .run();
    adopted++;
  }
  return adopted;
}

/** The hashes of all pictures that are known. */
export const knownPictures = (): string[] =>
  database()
    .select({ hash: pictures.hash })
    .from(pictures)
    .all()
    .map((p) => p.hash);

export function pictureOf(hash: string): Picture {
  const picture = database().select().from(pictures).where(eq(pictures.hash, hash)).get();
  if (!picture) throw notFound('picture');
  return picture;
}

const clean = new Map<string, Promise<boolean>>();

/** Whether anyone can be given the file of a picture as it came; looked at once. */
function isCleanOriginal(hash: string, file: string): Promise<boolean> {
  let known = clean.get(hash);
  if (!known) clean.set(hash, (known = isClean(file).catch(() => (clean.delete(hash), false))));
  return known;
}

/** A file with a picture in full, upright, as PNG or JPEG: the one that came, where that is such a one and has no fault. */
export async function uprightFile(hash: string): Promise<string> {
  const { mime } = pictureOf(hash);
  const original = mime === MIME.png || mime === MIME.jpeg ? await soundOriginal(hash) : null;
  if (original) {
    const { orientation = 1, space } = await sharp(original, { limitInputPixels: false }).metadata();
    if (orientation === 1 && space !== 'cmyk' && (await isCleanOriginal(hash, original))) return original;
  }
  return shownFile(hash, 'screen');
}

const damaged = (): Problem => new Problem(404, 'damaged', 'The picture’s file is missing or damaged.');

const shownPath = (hash: string, size: ShownSize): string => path.join(folder('derived'), `${hash}-${size}.img`);

const making = new Map<string, Promise<string>>();

/** A file with the picture upright and no larger than asked for: made on first use, and again if thrown away. */
export async function shownFile(hash: string, size: ShownSize): Promise<string> {
  const picture = pictureOf(hash);
  const file = shownPath(hash, size);
  if (await isKept(file)) return file;
  const underway = making.get(file);
  if (underway) return underway;
  const made = makeShown(picture, size, file).finally(() => making.delete(file));
  making.set(file, made);
  return made;
}

/** The largest is made of the file as it came, the others of that one. */
async function makeShown({ hash, mime }: Picture, size: ShownSize, file: string): Promise<string> {
  if (size === 'screen' && mime !== MIME.svg) {
    const original = await soundOriginal(hash);
    if (!original || (await decodedInto(original, hash)).refused) throw damaged();
    return file;
  }
  const from = sharp(mime === MIME.svg ? await drawnSvg(hash) : await shownFile(hash, 'screen'));
  const { hasAlpha } = await from.metadata();
  const [width, height] = [shownSizes[size], shownSizes[size]];
  const smaller = from.resize({ width, height, fit: 'inside', withoutEnlargement: true }).toColourspace('srgb');
  const encoded = hasAlpha
    ? smaller.png({ compressionLevel: 3 })
    : smaller.jpeg({ quality: 92, chromaSubsampling: '4:4:4' });
  await keepDerived(file, (temporary) => encoded.toFile(temporary));
  return file;
}

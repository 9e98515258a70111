import { emptyDrawing, plainPage, type Drawing } from '@/core';
import { pixelsAt } from '@/core/drawing/unit';
import { composed } from '@/core/deliver/composed';
import type { Delivery } from '@/core/deliver/delivery';
import { packed } from '@/core/formats/packed';
import type { Motion } from '@/core/replay/motion';
import { leavesOf, sceneOf } from '@/core/scene/scene';
import { isRaster } from '@/core/deliver/fileFormats';
import type { FileOptions } from './jobs/exportedFile';
import { doneApart, type JobWays } from './jobs/pool';
import type { PictureFiles } from './jobs/seenPictures';
import { soundOriginal } from './originals';
import { shownFile, uprightFile, type ShownSize } from './pictures';
import { folder } from './place';
import { Problem } from './problem';

const MOST_SIDE = 30_000;
const MOST_PIXELS = 200_000_000;
/** Pixels of a card's longer side. */
const CARD_SIDE = 480;

const packs = new WeakMap<Drawing, Uint8Array>();

/** A drawing packed for a job; once, for as long as it is the same. */
export function packedOnce(drawing: Drawing): Uint8Array {
  let bytes = packs.get(drawing);
  if (!bytes) packs.set(drawing, (bytes = packed(drawing)));
  return bytes;
}

/** How large a file of a drawing comes out, in pixels. */
export function pixelSize(
  drawing: Drawing,
  wanted: Delivery,
  beside?: readonly Drawing[],
): { width: number; height: number } {
  const { box } = composed(drawing, wanted, beside && { beside });
  return { width: pixelsAt(box.maxX - box.minX, wanted.dpi), height: pixelsAt(box.maxY - box.minY, wanted.dpi) };
}

/** What else is asked of a file; its size in pixels goes by its dpi, where it is not asked for. */
export type Asked = Omit<FileOptions, 'size'> & Partial<Pick<FileOptions, 'size'>>;

/**
 * A drawing as a file of any kind, made beside the server's own work.
 * @throws Problem 413 for a size beyond what can be drawn, and whatever stops a job.
 */
export async function exportedDrawing(
  drawing: Drawing,
  wanted: Delivery,
  asked: Asked,
  how: JobWays = {},
): Promise<Uint8Array> {
  const options = { ...asked, size: asked.size ?? pixelSize(drawing, wanted, asked.beside) };
  const { width, height } = options.size;
  if (isRaster(wanted.format) && (Math.max(width, height) > MOST_SIDE || width * height > MOST_PIXELS))
    throw new Problem(
      413,
      'too-large',
      `At ${wanted.dpi} dpi the picture would be ${width} x ${height} px, which is too large. Choose a lower dpi.`,
    );
  const files = await pictureFiles(asked.beside ?? [drawing], wanted.reference);
  const packedOptions = { ...options, beside: asked.beside?.map(packedOnce) };
  return doneApart('exportedFile', [packedOnce(drawing), wanted, packedOptions, files, folder('derived')], how);
}

/** A drawing that draws itself: one file, or one for each picture. @throws Problem as for a file. */
export async function movingDrawing(
  drawing: Drawing,
  wanted: Delivery,
  motion: Motion,
  title: string,
  how: JobWays,
): Promise<Uint8Array[]> {
  const files = await pictureFiles([drawing], wanted.reference);
  return doneApart('movingFile', [packedOnce(drawing), wanted, motion, title, files, folder('derived')], how);
}

/** The files of drawings' pictures: as they came, or of a size that they are shown in. */
async function pictureFiles(
  drawings: readonly Drawing[],
  references: boolean,
  size?: ShownSize,
): Promise<PictureFiles> {
  const files: Record<string, string> = {};
  for (const picture of seenIn(drawings, references)) {
    const file = await (size ? shownFile(picture, size) : uprightFile(picture)).catch(() => null);
    if (file) files[picture] = file;
  }
  return files;
}

/** The pictures that are seen in drawings, by their hashes. */
const seenIn = (drawings: readonly Drawing[], references: boolean): Set<string> =>
  new Set(
    drawings
      .flatMap((d) => leavesOf(sceneOf(d, { references })))
      .flatMap(({ node }) => (node.kind === 'picture' ? [node.placed.picture] : [])),
  );

/** How many of the pictures that are seen in drawings are missing or damaged: files are made without them. */
export async function missingPictures(drawings: readonly Drawing[], references: boolean): Promise<number> {
  let missing = 0;
  for (const hash of seenIn(drawings, references)) if (!(await soundOriginal(hash))) missing++;
  return missing;
}

/** The picture on a drawing's card: its page with references and lines. WebP. */
export async function renderCard(drawing: Drawing): Promise<Uint8Array> {
  const files = await pictureFiles([drawing], true, 'quarter');
  return doneApart('card', [packedOnce(drawing), CARD_SIDE, files, folder('derived')]);
}

/** Has a process begin, and what cards need be in it. */
export async function wakeJobs(): Promise<void> {
  const page = plainPage({ width: 1, height: 1, unit: 'px', dpi: 96, ground: null });
  await renderCard(emptyDrawing(page, { id: 's', name: '', tag: '#000000' }));
}

import type { Drawing } from '@/core';
import type { Delivery } from '@/core/deliver/delivery';
import { fileName, filesOf, type WantedFile } from '@/core/deliver/files';
import { mimeOf } from '@/core/deliver/fileFormats';
import { framesOf, isRasterMotion, motionEnding, type Motion } from '@/core/replay/motion';
import { Problem } from '../problem';
import { exportedDrawing, movingDrawing } from '../render';

/** What is asked for at once: a delivery, what its files are called beside the drawing's title, and whether they move. */
export type WantedDelivery = { readonly name: string; readonly wanted: Delivery; readonly motion?: Motion };

/** A file, or a row of numbered ones; `weight`: how many pictures there are to be made for it. */
export type NamedFile = WantedFile & {
  readonly wanted: Delivery;
  readonly motion?: Motion;
  readonly weight: number;
};

const MOST_FILES = 500;
const ZIP = 'application/zip';
const mimes: Readonly<Record<string, string>> = { svg: mimeOf.svg, webp: mimeOf.webp, gif: 'image/gif', zip: ZIP };

/** All files that are asked for, and what comes of them: one of them alone, or a zip. @throws Problem 400. */
export function wantedFiles(
  drawing: Drawing,
  title: string,
  deliveries: readonly WantedDelivery[],
): { files: NamedFile[]; name: string; mime: string } {
  const taken = new Set<string>();
  const files = deliveries.flatMap(({ name, wanted, motion }) => {
    const ending = motion ? motionEnding[motion.as] : wanted.format;
    return filesWanted(drawing, wanted).map((f): NamedFile => {
      const weight = motion && isRasterMotion(motion.as) ? told(() => framesOf(f.drawing, motion).times.length) : 1;
      return { ...f, wanted, ...(motion && { motion }), weight, name: fileName([title, name, f.name], ending, taken) };
    });
  });
  if (files.length > MOST_FILES)
    throw new Problem(400, 'too-many', `These would be ${files.length} files; ${MOST_FILES} can be made at once.`);
  if (files.length > 1) return { files, name: fileName([title], 'zip'), mime: ZIP };
  const [{ name, motion, wanted }] = files;
  return { files, name, mime: motion ? mimes[motionEnding[motion.as]] : mimeOf[wanted.format] };
}

/** The files that a delivery comes to. @throws Problem 400 when nothing is seen. */
export const filesWanted = (drawing: Drawing, wanted: Delivery): WantedFile[] => told(() => filesOf(drawing, wanted));

/** What is asked for and cannot be is told as such. */
function told<T>(ask: () => T): T {
  try {
    return ask();
  } catch (error) {
    if (error instanceof RangeError) throw new Problem(400, 'nothing', `No file can be made: ${error.message}.`);
    throw error;
  }
}

export const isTextFile = (name: string): boolean => name.endsWith('.svg');

/** The files one after the other, each made when it is asked for. `onMade` hears how much of their weight there is. */
export async function* piecesOf(
  title: string,
  files: readonly NamedFile[],
  signal: AbortSignal,
  onMade: (weight: number) => void,
): AsyncGenerator<{ name: string; bytes: Uint8Array }> {
  let made = 0;
  for (const { drawing, beside, wanted, motion, weight, name } of files) {
    if (motion) {
      const onNews = (count: unknown): void => onMade(made + Number(count));
      const all = await movingDrawing(drawing, wanted, motion, title, { signal, onNews, within: 600_000 });
      // Numbered ones lie in a folder of their own where there is anything else.
      const folder = files.length > 1 ? `${name.replace(/\.zip$/, '')}/` : '';
      const digits = Math.max(4, String(all.length).length);
      for (const [i, bytes] of all.entries())
        yield { name: motion.as === 'frames' ? `${folder}${String(i + 1).padStart(digits, '0')}.png` : name, bytes };
    } else
      yield { name, bytes: await exportedDrawing(drawing, wanted, { title, ...(beside && { beside }) }, { signal }) };
    made += weight;
    onMade(made);
  }
}

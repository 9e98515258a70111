import sharp from 'sharp';
import type { Drawing } from '@/core';
import { composed } from '@/core/deliver/composed';
import { plainSvgLook, type Delivery } from '@/core/deliver/delivery';
import { writeAnimatedSvg } from '@/core/formats/svg/animatedSvg';
import { writeComposition } from '@/core/formats/svg/writeSvg';
import { inOrder } from '@/core/replay/inOrder';
import { framesOf, type Motion } from '@/core/replay/motion';
import { momentsOf, sceneAt } from '@/core/replay/sceneAt';
import { timelineOf } from '@/core/replay/timing';
import { sceneOf } from '@/core/scene/scene';
import { rasterized } from './exportedFile';
import { hrefsOf, picturesOf, type PictureFiles } from './seenPictures';

export type MovingArguments = [
  drawing: Drawing,
  wanted: Delivery,
  motion: Motion,
  title: string,
  files: PictureFiles,
  derived: string,
];

/** As many pixels as the pictures of one file may have together: they are held while it is put together. */
const MOST_PIXELS = 80_000_000;
const LEVELS = { png: 6, gif: 4 };

/**
 * A drawing that draws itself: one file, or one for each picture. `onMade` hears how many pictures there are so far.
 * @throws RangeError for more or larger pictures than can be made.
 */
export async function movingFile(
  [drawing, wanted, motion, title, files, derived]: MovingArguments,
  onMade: (count: number) => void,
): Promise<Uint8Array[]> {
  const whole = composed(drawing, wanted);
  const pictures = await picturesOf(whole, wanted, files, derived);
  const pictureHref = hrefsOf(pictures);
  const text = (svg: string): Uint8Array[] => [new TextEncoder().encode(svg)];
  if (motion.as === 'moving svg') {
    const timeline = timelineOf(drawing, { length: motion.length, pause: motion.pause });
    return text(writeAnimatedSvg(whole, timeline, { title, pictureHref }));
  }
  if (motion.as === 'svg in order') {
    const ordered = composed(drawing, wanted, { seen: (d) => inOrder(sceneOf(d), d) });
    return text(writeComposition(ordered, wanted.svg, { title, pictureHref }));
  }
  const { timeline, times, delays } = framesOf(drawing, motion);
  const moments = momentsOf(timeline);
  const { box } = whole;
  const height = Math.max(1, Math.round((motion.width * (box.maxY - box.minY)) / (box.maxX - box.minX)));
  const size = { width: motion.width, height };
  if (motion.as !== 'frames' && times.length * size.width * height > MOST_PIXELS)
    throw new RangeError(
      'the pictures are too large and too many for one file: make them smaller, or take fewer a second',
    );
  const frames: Buffer[] = [];
  let last = '';
  for (const t of times) {
    const composition = composed(drawing, wanted, { seen: (d) => sceneAt(d, moments, t) });
    const svg = writeComposition(composition, plainSvgLook, { pictureHref });
    // While the pen rests nothing changes.
    if (svg === last) frames.push(frames.at(-1)!);
    else
      frames.push(
        await rasterized(composition, svg, size, motion.as === 'gif')
          .png({ compressionLevel: LEVELS.png })
          .toBuffer(),
      );
    last = svg;
    onMade(frames.length);
  }
  if (motion.as === 'frames') return frames;
  const film = sharp(frames, { join: { animated: true }, limitInputPixels: false });
  const encoded =
    motion.as === 'gif'
      ? film.gif({ delay: delays, loop: 0, effort: LEVELS.gif })
      : film.webp({ delay: delays, loop: 0, quality: wanted.quality });
  return [new Uint8Array(await encoded.toBuffer())];
}

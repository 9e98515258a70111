import { z } from 'zod';
import type { Drawing } from '../drawing/schema';
import { timelineOf, type Timeline } from './timing';

/** How a drawing that draws itself is saved: an SVG that moves, pictures that do, numbered pictures, or still, in its order. */
export const motionKinds = ['moving svg', 'webp', 'gif', 'frames', 'svg in order'] as const;
export type MotionKind = (typeof motionKinds)[number];

export const motionSchema = z.strictObject({
  as: z.enum(motionKinds),
  /** Pictures a second. */
  fps: z.number().min(1).max(60),
  /** How long all of it takes, s; and how long each part rests. */
  length: z.number().min(0.5).max(600),
  pause: z.number().min(0).max(10),
  /** How wide the pictures are, px. */
  width: z.number().int().min(16).max(4_000),
});
export type Motion = Readonly<z.infer<typeof motionSchema>>;

export const firstMotion: Motion = { as: 'moving svg', fps: 12, length: 10, pause: 0.3, width: 600 };

/** So many pictures at most; the whole drawing is seen for so long at the end, s. */
export const MOST_FRAMES = 600;
const HELD = 1;

/** The times of all pictures, s, and how long each is seen, ms. @throws RangeError for more than can be made. */
export function framesOf(
  d: Drawing,
  { fps, length, pause }: Motion,
): { timeline: Timeline; times: number[]; delays: number[] } {
  const timeline = timelineOf(d, { length, pause });
  const count = Math.ceil(timeline.total * fps);
  if (count > MOST_FRAMES)
    throw new RangeError(
      `these would be ${count} pictures; ${MOST_FRAMES} can be made: take fewer a second, or a shorter replay`,
    );
  const times = Array.from({ length: count }, (_, i) => ((i + 1) / Math.max(1, count)) * timeline.total);
  const delays = times.map((_, i) => Math.round(1000 / fps) + (i === count - 1 ? HELD * 1000 : 0));
  return { timeline, times, delays };
}

export const isRasterMotion = (as: MotionKind): boolean => as === 'webp' || as === 'gif' || as === 'frames';
/** What the file's name ends with. */
export const motionEnding: Readonly<Record<MotionKind, string>> = {
  'moving svg': 'svg',
  'svg in order': 'svg',
  webp: 'webp',
  gif: 'gif',
  frames: 'zip',
};

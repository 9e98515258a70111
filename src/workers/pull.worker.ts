import { expose } from 'comlink';
import {
  pullInk,
  pullShapes,
  type ColourImage,
  type GrayImage,
  type PulledRun,
  type PulledShape,
  type PullInkOptions,
  type PullShapesOptions,
} from '@/core';
import { inkOf } from '@/core/assist/inkMask';

/** Pulls lines from ink, and shapes from colours; a worker of its own, so that calling it off is ending it. */
const pulling = {
  pull: (image: GrayImage, options: PullInkOptions, progress: (share: number) => void): PulledRun[] =>
    pullInk(image, options, progress),

  shapes: (image: ColourImage, options: PullShapesOptions, progress: (share: number) => void): PulledShape[] =>
    pullShapes(image, options, progress),

  /** What would count as ink: 1 where it does. */
  mask: (image: GrayImage, level?: number): Uint8Array => inkOf(image, level).mask,
};

export type PullWorker = typeof pulling;
expose(pulling);

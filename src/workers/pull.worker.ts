import { expose } from 'comlink';
import { pullInk, type GrayImage, type PulledRun, type PullInkOptions } from '@/core';
import { inkOf } from '@/core/assist/inkMask';

/** Pulls lines from ink; a worker of its own, so that calling it off is ending it. */
const pulling = {
  pull: (image: GrayImage, options: PullInkOptions, progress: (share: number) => void): PulledRun[] =>
    pullInk(image, options, progress),

  /** What would count as ink: 1 where it does. */
  mask: (image: GrayImage, level?: number): Uint8Array => inkOf(image, level).mask,
};

export type PullWorker = typeof pulling;
expose(pulling);

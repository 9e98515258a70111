import { expose } from 'comlink';
import type { Cubic, GrayImage, Point } from '@/core';
import { Follower } from '@/core/assist/follow';

let follower: Follower | null = null;

/** Follows the ink of one picture, which is made ready first. */
const following = {
  prepare(image: GrayImage, target: 'ink' | 'edge'): void {
    follower = null;
    follower = new Follower(image, target);
  },

  /** Between two places of the picture, px; null where nothing leads there. */
  path: (from: Point, to: Point): Cubic[] | null => follower?.path(from, to) ?? null,
};

export type FollowWorker = typeof following;
expose(following);

import { expose } from 'comlink';
import type { Cubic, Point } from '@/core';

import { followerFor } from '@/core/assist/followWay';
import type { LiveWire } from '@/core/assist/liveWire';
import type { Picture } from '@/core/colour/picture';

let follower: LiveWire | null = null;

/** Follows the ink, or the edges, of one picture, which is made ready first. */
const following = {
  prepare(image: Picture, target: 'ink' | 'edge'): void {
    follower = null;
    follower = followerFor(image, target);
  },

  /** Between two places of the picture, px; null where nothing leads there. */
  path: (from: Point, to: Point): Cubic[] | null => follower?.path(from, to) ?? null,
};

export type FollowWorker = typeof following;
expose(following);

import { expose } from 'comlink';
import { nanoid } from 'nanoid';
import { applyChange, type Change, type Drawing } from '@/core';
import type { Edit } from '@/core/change/edit';
import { followingSteps } from '@/core/edits/following';

/** The drawing as it is. */
let drawing: Drawing | null = null;

const followers = {
  load(d: Drawing): void {
    drawing = d;
  },
  change(change: Change): void {
    if (drawing) drawing = applyChange(drawing, change);
  },
  /** What would follow from an edit. */
  following(edit: Edit): Edit['steps'] {
    if (!drawing) throw new Error('there is no drawing here');
    return followingSteps(drawing, applyChange(drawing, edit), () => nanoid(12));
  },
};

export type FollowersWorker = typeof followers;
expose(followers);

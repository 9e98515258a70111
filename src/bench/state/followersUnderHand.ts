import { nanoid } from 'nanoid';
import { applyChange, type Drawing } from '@/core';
import type { Edit } from '@/core/change/edit';
import { allFlats } from '@/core/edits/flats';
import { following } from '@/core/edits/followFlats';
import { followingSteps, hasFollowers, withFollowing } from '@/core/edits/following';

const freshId = (): string => nanoid(12);

/** What takes longer than this to work out is not worked out anew for each frame, ms; but after so many times as long. */
const QUICK = 8;
const RESTS = 2;

/**
 * What follows something else under a moving hand: flats their lines, frame by frame or as often as that leaves the hand its
 * time; what is held inside of shapes these.
 */
export class FollowersUnderHand {
  private last: { base: Drawing; steps: Edit['steps']; took: number; at: number } | null = null;

  /** An edit that is to be made, with what becomes of flats by it, and of what is held inside of shapes. */
  made = (d: Drawing, edit: Edit): Edit => withFollowing(d, edit, freshId);

  /** What a drawing would be by an edit. */
  shown(d: Drawing, edit: Edit): Drawing {
    const after = applyChange(d, edit);
    const flats = allFlats(d);
    if (!hasFollowers(d)) return after;
    const start = performance.now();
    const { last } = this;
    // Only where the edit itself leaves flats alone do the steps of another frame fit.
    const isApart = allFlats(after).every((f, i) => f === flats[i]);
    const isFresh = isApart && last?.base === d && last.took > QUICK && start - last.at < RESTS * last.took;
    const own = isFresh ? last.steps : following(d, after, freshId);
    const end = performance.now();
    if (!isFresh) this.last = isApart ? { base: d, steps: own, took: end - start, at: end } : null;
    const steps = followingSteps(d, after, freshId, own);
    return steps.length > 0 ? applyChange(after, { steps }) : after;
  }
}

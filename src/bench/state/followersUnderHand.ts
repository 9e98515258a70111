import { nanoid } from 'nanoid';
import { applyChange, type Drawing } from '@/core';
import type { Edit } from '@/core/change/edit';
import { allFlats } from '@/core/edits/flats';
import { followingSteps, hasFollowers, withFollowing } from '@/core/edits/following';

const freshId = (): string => nanoid(12);

type Steps = Edit['steps'];

/** Who else works out what follows from an edit of a drawing; null while it does not hold that drawing. */
export type FollowingElsewhere = (d: Drawing, edit: Edit) => Promise<Steps> | null;

/** What a hand shows: an edit, what the drawing is by it, and what is seen. */
type Shown = { base: Drawing; edit: Edit; after: Drawing; seen: Drawing };

/**
 * What follows something else under a moving hand: flats their lines, what is held inside of shapes these. Where it is
 * worked out elsewhere the hand does not wait: what is known last is seen until the answer comes.
 */
export class FollowersUnderHand {
  elsewhere: FollowingElsewhere | null = null;
  private shownLast: Shown | null = null;
  private known: { base: Drawing; steps: Steps } | null = null;
  private isAsking = false;

  /** `onNews` hears what is to be seen in place of what was given last. */
  constructor(private readonly onNews: (was: Drawing, is: Drawing) => void) {}

  /** An edit that is to be made, with what becomes of flats by it, and of what is held inside of shapes. */
  made = (d: Drawing, edit: Edit): Edit => withFollowing(d, edit, freshId);

  /** What a drawing would be by an edit. */
  shown(base: Drawing, edit: Edit): Drawing {
    const after = applyChange(base, edit);
    if (!hasFollowers(base)) return after;
    // Only where the edit itself leaves flats alone do the steps of another frame fit.
    const flats = allFlats(base);
    const isApart = allFlats(after).every((f, i) => f === flats[i]);
    const answer = isApart && !this.isAsking ? this.elsewhere?.(base, edit) : null;
    if (!answer && !(isApart && this.isAsking)) {
      this.shownLast = null;
      return withSteps(after, followingSteps(base, after, freshId));
    }
    const seen = withSteps(after, this.known?.base === base ? this.known.steps : []);
    this.shownLast = { base, edit, after, seen };
    if (answer) void this.await(base, edit, answer);
    return seen;
  }

  /** Takes what comes for an edit, and asks for the one that the hand has come to meanwhile. */
  private async await(base: Drawing, edit: Edit, answer: Promise<Steps>): Promise<void> {
    this.isAsking = true;
    let asked = { base, edit };
    for (let next: Promise<Steps> | null = answer; next;) {
      const steps = await next.catch(() => null);
      const last = this.shownLast;
      if (steps && last?.base === asked.base) {
        this.known = { base: last.base, steps };
        const was = last.seen;
        last.seen = withSteps(last.after, steps);
        this.onNews(was, last.seen);
      }
      next = last && last.edit !== asked.edit ? (this.elsewhere?.(last.base, last.edit) ?? null) : null;
      if (last) asked = last;
    }
    this.isAsking = false;
  }
}

const withSteps = (d: Drawing, steps: Steps): Drawing => (steps.length > 0 ? applyChange(d, { steps }) : d);

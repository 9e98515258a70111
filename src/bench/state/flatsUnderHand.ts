import { nanoid } from 'nanoid';
import type { Drawing } from '@/core';
import { applyChange } from '@/core';
import type { Edit } from '@/core/change/edit';
import { following, withFlats } from '@/core/edits/followFlats';
import { allFlats } from '@/core/edits/flats';

const freshId = (): string => nanoid(12);

/** What takes longer than this to work out is not worked out anew for each frame, ms; but after so many times as long. */
const QUICK = 8;
const RESTS = 2;

/** Flats under a moving hand: each follows its lines frame by frame, or as often as that leaves the hand its time. */
export class FlatsUnderHand {
  private last: { base: Drawing; steps: Edit['steps']; took: number; at: number } | null = null;

  /** An edit that is to be made, with what becomes of flats by it. */
  made = (d: Drawing, edit: Edit): Edit => withFlats(d, edit, freshId);

  /** One that is only shown. */
  shown(d: Drawing, edit: Edit): Edit {
    if (edit.steps.length === 0 || allFlats(d).length === 0) return edit;
    const start = performance.now();
    const { last } = this;
    const isFresh = last?.base === d && last.took > QUICK && start - last.at < RESTS * last.took;
    const steps = isFresh ? last.steps : following(d, applyChange(d, { id: 'flats', ...edit }), freshId);
    const end = performance.now();
    if (!isFresh) this.last = { base: d, steps, took: end - start, at: end };
    return steps.length > 0 ? { ...edit, steps: [...edit.steps, ...steps] } : edit;
  }
}

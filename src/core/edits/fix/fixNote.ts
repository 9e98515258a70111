import { applyChange } from '../../change/apply';
import { edit, type Edit } from '../../change/edit';
import { noteLimits, type Note, type NoteLimits } from '../../check/note';
import { endPoint } from '../../drawing/end';
import { findLine } from '../../drawing/find';
import { nearestOnLine } from '../../drawing/run';
import type { Drawing } from '../../drawing/schema';
import { MOST_WORSE, NO_WORSE, restStays, type Judge } from './judge';
import { waysToFix } from './ways';

/** Why a note is not put right: nothing can be done about it by itself, or what could would lead a line astray. */
export type LeftNote = { readonly note: Note; readonly why: 'by hand' | 'astray' };

/** An end this near to a line meets it. */
const MET = 0.05;

/**
 * What puts a note right; without steps where it no longer holds, or needs a hand. Of several ways the first that leaves
 * the rest of the lines where they were, by the judge; or the one that moves them least, where that is next to nothing.
 */
export const fixNote = (d: Drawing, note: Note, limits: NoteLimits = noteLimits, judge: Judge = restStays): Edit =>
  bestWay(d, d, note, limits, judge).edit;

type Best = { edit: Edit; worse: number; tried: boolean };

/** `before` has the lines as they were before any note was put right. */
function bestWay(before: Drawing, d: Drawing, note: Note, limits: NoteLimits, judge: Judge): Best {
  let best: Best = { edit: edit('Fix'), worse: Infinity, tried: false };
  for (const { edit: way, around, cuts } of waysToFix(d, note, limits)) {
    if (way.steps.length === 0) continue;
    if (cuts) return { edit: way, worse: 0, tried: true };
    const after = applyChange(d, { id: 'way', ...way });
    let worse = -Infinity;
    for (const id of new Set(note.lines)) {
      const [was, now] = [findLine(before, id)?.line, findLine(after, id)?.line];
      if (was && now && was.runs !== now.runs && findLine(d, id)?.line.runs !== now.runs)
        worse = Math.max(worse, judge(was, now, note.at, around));
    }
    if (worse <= NO_WORSE) return { edit: way, worse, tried: true };
    best = worse < best.worse && worse <= MOST_WORSE ? { edit: way, worse, tried: true } : { ...best, tried: true };
  }
  return best;
}

/**
 * All notes of a list put right in one change, as far as each can be, a note a step; `left` are those that are not. No
 * line comes to lie worse than before by more than the judge allows of one fix, however many of its notes are put right.
 */
export function* fixing(
  d: Drawing,
  notes: readonly Note[],
  label: string,
  limits: NoteLimits = noteLimits,
  judge: Judge = restStays,
): Generator<void, { edit: Edit; left: LeftNote[] }> {
  // Within a line from its last node on: what goes shifts none that is still to come.
  const ordered = [...notes].sort((a, b) => b.run - a.run || b.node - a.node);
  const steps: Edit['steps'][number][] = [];
  const left: LeftNote[] = [];
  let now = d;
  for (const note of ordered) {
    const { edit: way, tried } = bestWay(d, now, note, limits, judge);
    if (way.steps.length === 0 && !isMet(now, note)) left.push({ note, why: tried ? 'astray' : 'by hand' });
    else {
      now = applyChange(now, { id: 'fix', ...way });
      steps.push(...way.steps);
    }
    yield;
  }
  return { edit: edit(label, steps), left };
}

/** Whether a gap is no more: what was done to another end has closed it too. */
function isMet(d: Drawing, { kind, end, lines }: Note): boolean {
  const at = kind === 'gap' && end ? endPoint(d, end) : undefined;
  const other = findLine(d, lines.at(-1)!)?.line;
  return !!at && !!other && lines.length > 1 && (nearestOnLine(other, at)?.distance ?? Infinity) < MET;
}

/** The same at once. */
export function fixAll(...asked: Parameters<typeof fixing>): { edit: Edit; left: Note[] } {
  const steps = fixing(...asked);
  for (;;) {
    const step = steps.next();
    if (step.done) return { edit: step.value.edit, left: step.value.left.map((l) => l.note) };
  }
}

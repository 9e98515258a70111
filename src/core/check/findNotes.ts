import { linesOf, seenLines } from '../drawing/items';
import { isOpenSheet } from '../drawing/find';
import type { Drawing } from '../drawing/schema';
import { notesOfLine } from './lineNotes';
import { noteKinds, noteLimits, type Note, type NoteLimits } from './note';
import { notesBetween, withoutPairs } from './pairNotes';

/** All that may be wrong with the lines that are seen and not locked, kind by kind, from the top of the page down. */
export function findNotes(d: Drawing, limits: NoteLimits = noteLimits): Note[] {
  const finding = findingNotes(d, limits);
  for (;;) {
    const step = finding.next();
    if (step.done) return gathered(d, step.value);
  }
}

/** Of so many shares of the lines one, so that each can be looked through by another. */
export type Share = { readonly of: number; readonly take: number };
const whole: Share = { of: 1, take: 0 };

/** What is found in a share of the lines, a line a step; `gathered` makes notes of it. */
export function* findingNotes(
  d: Drawing,
  limits: NoteLimits = noteLimits,
  { of, take }: Share = whole,
): Generator<void, Note[]> {
  const lines = seenLines(d);
  const isTaken = (i: number): boolean => i % of === take;
  const notes: Note[] = [];
  for (const [i, l] of lines.entries()) {
    if (!isTaken(i)) continue;
    notes.push(...notesOfLine(l, d.page, limits));
    yield;
  }
  notes.push(...(yield* notesBetween(lines, limits, isTaken)));
  return notes;
}

/** The notes that come of what was found in all shares: what is seen from both sides once, and nothing of what is locked. */
export function gathered(d: Drawing, found: readonly Note[]): Note[] {
  // What is locked is done with: it is only there for others to meet.
  const open = new Set(d.sheets.filter(isOpenSheet).flatMap((s) => linesOf(s).map((l) => l.id)));
  const place = new Map(seenLines(d).map((l, i) => [l.id, i]));
  const byLine = found.toSorted((a, b) => place.get(a.lines[0])! - place.get(b.lines[0])!);
  return inOrder(withoutPairs(byLine).filter((n) => open.has(n.lines[0])));
}

const order = new Map(noteKinds.map((k, i) => [k, i]));

/** Notes kind by kind, from the top of the page down. */
const inOrder = (notes: readonly Note[]): Note[] =>
  notes.toSorted((a, b) => order.get(a.kind)! - order.get(b.kind)! || a.at.y - b.at.y || a.at.x - b.at.x);

import { linesOf, seenLines } from '../drawing/items';
import { isOpenSheet } from '../drawing/find';
import type { Drawing } from '../drawing/schema';
import { notesOfLine } from './lineNotes';
import { noteKinds, noteLimits, type Note, type NoteLimits } from './note';
import { notesBetween } from './pairNotes';

/** All that may be wrong with the lines that are seen and not locked, kind by kind, from the top of the page down. */
export function findNotes(d: Drawing, limits: NoteLimits = noteLimits): Note[] {
  const finding = findingNotes(d, limits);
  for (;;) {
    const step = finding.next();
    if (step.done) return step.value;
  }
}

/** What can be looked for by itself, in any order or at the same time: lines each, and lines beside each other. */
export const noteParts = ['own', 'between'] as const;
export type NotePart = (typeof noteParts)[number];

/** The same, a line a step; of some parts only, where not all are wanted. */
export function* findingNotes(
  d: Drawing,
  limits: NoteLimits = noteLimits,
  parts: readonly NotePart[] = noteParts,
): Generator<void, Note[]> {
  const lines = seenLines(d);
  // What is locked is done with: it is only there for others to meet.
  const open = new Set(d.sheets.filter(isOpenSheet).flatMap((s) => linesOf(s).map((l) => l.id)));
  const notes: Note[] = [];
  if (parts.includes('own'))
    for (const l of lines) {
      notes.push(...notesOfLine(l, d.page, limits));
      yield;
    }
  if (parts.includes('between')) notes.push(...(yield* notesBetween(lines, limits)));
  return inOrder(notes.filter((n) => open.has(n.lines[0])));
}

const order = new Map(noteKinds.map((k, i) => [k, i]));

/** Notes kind by kind, from the top of the page down. */
export const inOrder = (notes: readonly Note[]): Note[] =>
  notes.toSorted((a, b) => order.get(a.kind)! - order.get(b.kind)! || a.at.y - b.at.y || a.at.x - b.at.x);

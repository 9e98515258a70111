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

/** The same, a line a step. */
export function* findingNotes(d: Drawing, limits: NoteLimits = noteLimits): Generator<void, Note[]> {
  const lines = seenLines(d);
  // What is locked is done with: it is only there for others to meet.
  const open = new Set(d.sheets.filter(isOpenSheet).flatMap((s) => linesOf(s).map((l) => l.id)));
  const order = new Map(noteKinds.map((k, i) => [k, i]));
  const notes: Note[] = [];
  for (const l of lines) {
    notes.push(...notesOfLine(l, d.page, limits));
    yield;
  }
  notes.push(...(yield* notesBetween(lines, limits)));
  return notes
    .filter((n) => open.has(n.lines[0]))
    .sort((a, b) => order.get(a.kind)! - order.get(b.kind)! || a.at.y - b.at.y || a.at.x - b.at.x);
}

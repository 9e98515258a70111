import type { Drawing } from '../drawing/schema';
import { notesOfLine } from './lineNotes';
import { noteKinds, noteLimits, type Note, type NoteLimits } from './note';
import { notesBetween } from './pairNotes';

/** All that may be wrong with the lines of the visible sheets, kind by kind, from the top of the page down. */
export function findNotes(d: Drawing, limits: NoteLimits = noteLimits): Note[] {
  const lines = d.sheets.filter((s) => s.visible).flatMap((s) => s.lines);
  const order = new Map(noteKinds.map((k, i) => [k, i]));
  return [...lines.flatMap((l) => notesOfLine(l, d.page, limits)), ...notesBetween(lines, limits)].sort(
    (a, b) => order.get(a.kind)! - order.get(b.kind)! || a.at.y - b.at.y || a.at.x - b.at.x,
  );
}

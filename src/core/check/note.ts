import type { End } from '../drawing/end';
import type { Drawing, Line } from '../drawing/schema';
import type { Point } from '../geometry/point';

/** What the checks can find. */
export const noteKinds = [
  'gap',
  'overhang',
  'kink',
  'crumb',
  'doubled',
  'stray',
  'needless',
  'wild',
  'crossing',
  'outside',
] as const;
export type NoteKind = (typeof noteKinds)[number];

/** Something that may be wrong with a line. `key` stays the same for as long as it is the same thing in the same place. */
export type Note = {
  readonly kind: NoteKind;
  readonly key: string;
  /** Where to look, in page units. */
  readonly at: Point;
  /** The line, and the other one where there are two. */
  readonly lines: readonly string[];
  /** A length in page units, or an angle in degrees for a kink; null where there is none to tell. */
  readonly figure: number | null;
  /** What the fix needs to find it again. */
  readonly run: number;
  readonly node: number;
  readonly end: End | null;
  readonly to: Point | null;
};

/** From where on something is noted; lengths in page units. */
export type NoteLimits = {
  /** Ends this near to another line should meet it; what sticks out beyond a line by less is an overhang. */
  readonly reach: number;
  /** A turn of fewer degrees on a curve is a kink. */
  readonly kink: number;
  /** A line shorter than this is a crumb. */
  readonly crumb: number;
  /** Lines that run this near to each other are one drawn twice. */
  readonly doubled: number;
  /** A node whose loss would move the line by less is needless. */
  readonly needless: number;
};

export const noteLimits: NoteLimits = { reach: 6, kink: 25, crumb: 3, doubled: 1, needless: 0.2 };

/** A note without what it need not say. */
export function noteOf(
  kind: NoteKind,
  line: Pick<Line, 'id'>,
  at: Point,
  more: Partial<Omit<Note, 'kind' | 'at' | 'key'>> = {},
): Note {
  const lines = more.lines ?? [line.id];
  return {
    kind,
    key: `${kind} ${lines.join(' ')} ${Math.round(at.x)},${Math.round(at.y)}`,
    at,
    lines,
    figure: more.figure ?? null,
    run: more.run ?? 0,
    node: more.node ?? 0,
    end: more.end ?? null,
    to: more.to ?? null,
  };
}

/** The notes that nobody has waved through. */
export function openNotes(d: Pick<Drawing, 'waved'>, notes: readonly Note[]): Note[] {
  const waved = new Set(d.waved);
  return notes.filter((n) => !waved.has(n.key));
}

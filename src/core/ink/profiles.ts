import type { KeptProfile, Line, Mark } from '../drawing/schema';

/** A width profile apart from any line: marks as shares of half the stroke's width. */
export type Profile = KeptProfile;

const even = (...list: [at: number, width: number][]): Mark[] =>
  list.map(([at, width]) => ({ at, left: width, right: width }));

/** The profiles that are there from the start. */
export const firstProfiles: readonly Profile[] = [
  { id: 'taper-in', name: 'taper in', marks: even([0, 0.06], [0.45, 1], [1, 1]) },
  { id: 'taper-out', name: 'taper out', marks: even([0, 1], [0.55, 1], [1, 0.06]) },
  { id: 'both', name: 'both ends', marks: even([0, 0.06], [0.35, 1], [0.65, 1], [1, 0.06]) },
  { id: 'belly', name: 'belly', marks: even([0, 0.4], [0.5, 1.4], [1, 0.4]) },
  { id: 'reed', name: 'reed', marks: even([0, 0.5], [0.08, 1.15], [0.3, 0.75], [0.75, 1.05], [1, 0.12]) },
];

/** The marks of a profile on a stroke of some width. */
export const marksOf = ({ marks }: Pick<Profile, 'marks'>, width: number): Mark[] =>
  marks.map((m) => ({ ...m, left: (m.left * width) / 2, right: (m.right * width) / 2 }));

/** The profile that marks make on a stroke of some width; as they are where that is nothing. */
export const profileOf = (marks: readonly Mark[], width: number): Mark[] =>
  scaledMarks(marks, width > 0 ? 2 / width : 1);

export const scaledMarks = (marks: readonly Mark[], k: number): Mark[] =>
  marks.map((m) => ({ ...m, left: Math.min(10_000, m.left * k), right: Math.min(10_000, m.right * k) }));

/** The width marks of a line; one that has none is as wide as its style throughout. */
export const marksOn = (line: Pick<Line, 'marks' | 'style'>): readonly Mark[] =>
  line.marks?.length ? line.marks : [{ at: 0, left: line.style.width / 2, right: line.style.width / 2 }];

/** The same widths met from the other end; the sides stay where they are. */
export const turnedMarks = (marks: readonly Mark[]): Mark[] => marks.map((m) => ({ ...m, at: 1 - m.at })).reverse();

/** The marks of a line that is walked the other way. */
export const reversedMarks = (marks: readonly Mark[]): Mark[] =>
  turnedMarks(marks).map((m) => ({ ...m, left: m.right, right: m.left }));

/** A mark more, or in place of the one that lies where it does. */
export const withMark = (marks: readonly Mark[], mark: Mark): Mark[] =>
  [...marks.filter((m) => Math.abs(m.at - mark.at) > 1e-6), mark].sort((a, b) => a.at - b.at);

/** The marks of a closed line that begins at another share of its length. */
export function shiftedMarks(marks: readonly Mark[], by: number): Mark[] {
  const ring = marks.length > 1 && marks[0].at === 0 && marks.at(-1)!.at === 1 ? marks.slice(0, -1) : marks;
  return ring.map((m) => ({ ...m, at: (m.at - by + 1) % 1 })).sort((a, b) => a.at - b.at);
}

/** What keeps a line without marks as wide as it is when it gets one at a share: marks at its ends, or across from there. */
export function marksAround(line: Pick<Line, 'runs' | 'style' | 'marks'>, at: number): Mark[] {
  const [{ left, right }] = marksOn(line);
  const ats = line.runs.every((r) => r.closed) ? [(at + 0.5) % 1] : [0, 1];
  return ats.map((a) => ({ at: a, left, right }));
}

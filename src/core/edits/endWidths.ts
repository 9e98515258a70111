import { seenLines } from '../drawing/items';
import { findLine } from '../drawing/find';
import { lineLength, nearestOnLine, skeletonBox } from '../drawing/run';
import type { Drawing, Line, Mark } from '../drawing/schema';
import { growBox } from '../geometry/box';
import type { Point } from '../geometry/point';
import { marksOn, withMark } from '../ink/profiles';
import { widthProfile } from '../ink/widths';
import { counted, type Edit } from '../change/edit';
import { setMarks } from './strokes';

/** What is left of the width at a tapered end. */
const POINT = 0.08;
/** An end is tapered over so many of its widths, and no more than this share of the line. */
const OVER = 7;
const MOST = 0.35;

/**
 * Ends of lines that run into others, tapered to a point or as wide as the line is before them. An end runs into a line
 * whose stroke it reaches, or misses by `reach` page units at most; ends that meet nothing, and closed lines, stay.
 */
export function shapeMeetingEnds(d: Drawing, ids: readonly string[], how: 'taper' | 'full', reach: number): Edit {
  const others = seenLines(d);
  const marks = new Map<string, readonly Mark[]>();
  for (const id of new Set(ids)) {
    const line = findLine(d, id)?.line;
    if (!line || line.runs.length > 1 || line.runs[0].closed || line.runs[0].nodes.length < 2) continue;
    const { nodes } = line.runs[0];
    const ends = ([0, 1] as const).filter((at) => meets(others, line, nodes.at(at === 0 ? 0 : -1)!.point, reach));
    const after = ends.reduce<readonly Mark[]>((list, at) => withEnd(line, list, at, how), marksOn(line));
    if (ends.length > 0 && after !== marksOn(line)) marks.set(id, after);
  }
  return setMarks(d, marks, counted(how === 'taper' ? 'Taper ends of' : 'Fill ends of', marks.size, 'line'));
}

function meets(others: readonly Line[], own: Line, end: Point, reach: number): boolean {
  return others.some((l) => {
    if (l.id === own.id) return false;
    const half = marksOn(l).reduce((most, m) => Math.max(most, m.left, m.right), 0) + reach;
    const box = growBox(skeletonBox(l), half);
    if (end.x < box.minX || end.x > box.maxX || end.y < box.minY || end.y > box.maxY) return false;
    const near = nearestOnLine(l, end);
    return near !== null && near.distance <= half;
  });
}

function withEnd(line: Line, marks: readonly Mark[], at: 0 | 1, how: 'taper' | 'full'): readonly Mark[] {
  const profile = widthProfile(marks);
  const length = lineLength(line);
  const inner = (over: number): number => (at === 0 ? over : 1 - over);
  // How wide it is before a taper that is there already.
  const own = profile.at(inner(MOST));
  const over = Math.min(MOST, (OVER * Math.max(own.left + own.right, 1e-6)) / Math.max(length, 1e-6));
  const begins = { ...plain(how === 'taper' ? profile.at(inner(over)) : own), at: inner(over) };
  const kept = marks.filter((m) => (at === 0 ? m.at > over : m.at < 1 - over));
  const k = how === 'taper' ? POINT : 1;
  const end = { at, left: begins.left * k, right: begins.right * k };
  // The far end keeps what it had.
  const far = { ...plain(profile.at(1 - at)), at: 1 - at };
  return [begins, end, ...(kept.some((m) => m.at === 1 - at) ? [] : [far])].reduce(withMark, kept);
}

const plain = ({ left, right }: { left: number; right: number }) => ({ left, right });

import type { Mark } from '../drawing/schema';

/** Marks of a line stay this far apart, by share of its length. */
const GAP = 0.003;
const WIDEST = 10_000;
/** What one press of an arrow does: page units wider to each side, and a share of the line along. */
const [WIDER, ALONG] = [0.25, 0.01];

/** A mark wider by so much to both sides, or to one alone. */
export function grownMark(m: Mark, by: number, side: 'both' | 'left' | 'right' = 'both'): Mark {
  const grown = (v: number): number => Math.min(WIDEST, Math.max(0, v + by));
  return { ...m, left: side === 'right' ? m.left : grown(m.left), right: side === 'left' ? m.right : grown(m.right) };
}

/** A mark brought to another place, between those beside it. */
export function movedMark(marks: readonly Mark[], m: Mark, at: number): Mark {
  const others = marks.filter((k) => k !== m);
  const before = others.findLast((k) => k.at < m.at);
  const after = others.find((k) => k.at > m.at);
  const [low, high] = [before ? before.at + GAP : 0, after ? after.at - GAP : 1];
  return { ...m, at: Math.min(high, Math.max(low, at)) };
}

/**
 * What a key does to one of a line's marks: arrows make it wider or thinner, or move it along, with Shift four times as
 * far; Delete takes it away. Null for another key.
 */
export function markByKey(
  marks: readonly Mark[],
  index: number,
  key: string,
  shift: boolean,
): { marks: Mark[]; label: string; isGone: boolean } | null {
  const m = marks[index];
  if (!m) return null;
  const by = shift ? 4 : 1;
  const put = (next: Mark, label: string) => ({ marks: marks.with(index, next), label, isGone: false });
  switch (key) {
    case 'ArrowUp':
      return put(grownMark(m, WIDER * by), 'Swell line');
    case 'ArrowDown':
      return put(grownMark(m, -WIDER * by), 'Swell line');
    case 'ArrowRight':
      return put(movedMark(marks, m, m.at + ALONG * by), 'Move mark');
    case 'ArrowLeft':
      return put(movedMark(marks, m, m.at - ALONG * by), 'Move mark');
    case 'Delete':
    case 'Backspace':
      return { marks: marks.toSpliced(index, 1), label: 'Remove mark', isGone: true };
    default:
      return null;
  }
}

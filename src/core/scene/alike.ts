import { colourDistance } from '../colour/colour';
import type { Paint } from '../drawing/paint';
import { colourOf } from './ink';
import { linesOf } from '../drawing/items';
import { findLine, isOpenSheet } from '../drawing/find';
import type { Drawing, Line, Sheet } from '../drawing/schema';

/** By what lines are alike; each that is given must hold. Differences: page units of width, 0…255 of a colour channel. */
export type Likeness = {
  width?: { within: number };
  colour?: { within: number };
  fill?: { within: number };
  sheet?: boolean;
  /** Whether it is straight throughout. */
  kind?: boolean;
  closed?: boolean;
};

/** The lines, on sheets that can be touched, that are like one of `ids` in all that is asked; those themselves too. */
export function alikeTo(d: Drawing, ids: Iterable<string>, like: Likeness): string[] {
  const models = [...ids].flatMap((id) => findLine(d, id) ?? []);
  return d.sheets.filter(isOpenSheet).flatMap((sheet) =>
    linesOf(sheet)
      .filter((line) => models.some((m) => isAlike(d, m.line, m.sheet, line, sheet, like)))
      .map((l) => l.id),
  );
}

function isAlike(d: Drawing, a: Line, sheetOfA: Sheet, b: Line, sheetOfB: Sheet, like: Likeness): boolean {
  if (like.width && Math.abs(a.style.width - b.style.width) > like.width.within) return false;
  const seen = (l: Line, paint: Paint): string => colourOf(d, paint, l);
  if (like.colour && colourDistance(seen(a, a.style.stroke), seen(b, b.style.stroke)) > like.colour.within)
    return false;
  if (like.fill) {
    const [p, q] = [a.style.fill, b.style.fill];
    if ((p === null) !== (q === null)) return false;
    if (p && q && colourDistance(seen(a, p), seen(b, q)) > like.fill.within) return false;
  }
  if (like.sheet && sheetOfA.id !== sheetOfB.id) return false;
  if (like.kind && isStraight(a) !== isStraight(b)) return false;
  return !like.closed || isClosed(a) === isClosed(b);
}

export const isStraight = (l: Line): boolean => l.runs.every((r) => r.nodes.every((n) => !n.in && !n.out));
const isClosed = (l: Line): boolean => l.runs.every((r) => r.closed);

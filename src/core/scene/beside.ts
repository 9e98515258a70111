import { outlineHolds } from '../drawing/outline';
import RBush from 'rbush';
import { skeletonBox } from '../drawing/run';
import { flatsIn, seenLines } from '../drawing/items';
import { followsFill, type Paint } from '../drawing/paint';
import type { Drawing, Line } from '../drawing/schema';
import type { Box } from '../geometry/point';
import { sectionAt } from '../ink/sections';
import { shownFlat } from './shownFlat';

/** How far beside a line its neighbours' fills are looked for, page units beyond its edge. */
const BESIDE = 2;

type Filled = Box & { line: Line; order: number };

/** The filled lines of a drawing by place, and what was found beside lines among them. */
type FilledLines = { lines: readonly Line[]; tree: RBush<Filled>; found: WeakMap<Line, Line | null> };

let last: FilledLines | null = null;

/** Kept for as long as no filled line changes: most changes are to other lines. */
function filledLines(d: Drawing): FilledLines {
  const flats = d.sheets.filter((s) => s.visible).flatMap((s) => flatsIn(s.items).map(shownFlat));
  const lines = [...flats, ...seenLines(d).filter((l) => l.style.fill && !followsFill(l.style.fill))];
  if (last && last.lines.length === lines.length && lines.every((l, i) => l === last!.lines[i])) return last;
  const tree = new RBush<Filled>();
  tree.load(lines.map((line, order) => ({ ...skeletonBox(line), line, order })));
  return (last = { lines, tree, found: new WeakMap() });
}

/** The fill that a line borders: that of the uppermost filled line beneath one of its sides; null where there is none. */
export function fillBeneath(d: Drawing, line: Line): Paint | null {
  const filled = filledLines(d);
  let found = filled.found.get(line);
  if (found === undefined) filled.found.set(line, (found = lineBeneath(filled.tree, line)));
  return found?.style.fill ?? null;
}

function lineBeneath(tree: RBush<Filled>, line: Line): Line | null {
  for (const at of [0.5, 0.25, 0.75]) {
    const { p, along, left, right } = sectionAt(line, at);
    for (const k of [left + BESIDE, -(right + BESIDE)]) {
      const place = { x: p.x + along.y * k, y: p.y - along.x * k };
      const here = tree.search({ minX: place.x, minY: place.y, maxX: place.x, maxY: place.y });
      const inside = here.filter((f) => f.line.id !== line.id && outlineHolds(f.line, place));
      const top = inside.reduce<Filled | null>((a, b) => (!a || b.order > a.order ? b : a), null);
      if (top) return top.line;
    }
  }
  return null;
}

import RBush from 'rbush';
import { shownCubics } from '../drawing/rounding';
import { skeletonBox } from '../drawing/run';
import { flatsIn, seenLines } from '../drawing/items';
import { followsFill, type Paint } from '../drawing/paint';
import type { Drawing, Line, Run } from '../drawing/schema';
import { arcLengthOf } from '../geometry/arcLength';
import { evaluate } from '../geometry/cubic';
import type { Box, Point } from '../geometry/point';
import { isWithin } from '../geometry/polygon';
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
      const inside = here.filter((f) => f.line.id !== line.id && isInside(f.line, place));
      const top = inside.reduce<Filled | null>((a, b) => (!a || b.order > a.order ? b : a), null);
      if (top) return top.line;
    }
  }
  return null;
}

const isInside = (line: Line, p: Point): boolean =>
  line.runs.filter((run) => isWithin(p, polygonOf(run))).length % 2 === 1;

const polygons = new WeakMap<Run, Point[]>();

function polygonOf(run: Run): Point[] {
  let known = polygons.get(run);
  if (!known) {
    const cubics = run.nodes.length > 1 ? shownCubics(run) : [];
    const each = Math.max(4, Math.min(24, Math.ceil(arcLengthOf(cubics).length / Math.max(1, cubics.length) / 6)));
    known = cubics.flatMap((c) => Array.from({ length: each }, (_, i) => evaluate(c, i / each)));
    polygons.set(run, known);
  }
  return known;
}

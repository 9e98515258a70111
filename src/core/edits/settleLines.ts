import RBush from 'rbush';
import { applyChange } from '../change/apply';
import type { Edit } from '../change/edit';
import { findNotes } from '../check/findNotes';
import { noteLimits, type Note } from '../check/note';
import type { Pictures } from '../check/pictures';
import { referenceBeneath } from '../drawing/beneath';
import { findLine } from '../drawing/find';
import { linesOf } from '../drawing/items';
import { skeletonBox } from '../drawing/run';
import type { Drawing, Line, Run } from '../drawing/schema';
import { growBox } from '../geometry/box';
import type { Box } from '../geometry/point';
import { fixAll } from './fix/fixNote';
import { inkJudge } from './fix/inkJudge';
import type { Judge } from './fix/judge';
import { reshapeLines } from './lines';
import { settledRuns, type SettleFigures } from './settle';

/** How often what settling brought is looked for and put right: one fix can bring another note. */
const ROUNDS = 5;
/** A line may lie so much worse, px, rather than keep a fault that settling brought. */
const LENIENT = 1;

/**
 * Lines by their ids settled onto the ink beneath them; only those that move. Where whole lines settle, what
 * that brings is put right: an end that now stops short of another line, or sticks out beyond it, meets it; no line that
 * was not asked for moves. `nodes` (by line, as `run:node`) are the only ones that move, where there are any.
 */
export function settledLines(
  d: Drawing,
  ids: readonly string[],
  nodes: ReadonlyMap<string, ReadonlySet<string>>,
  pictures: Pictures,
  figures: SettleFigures,
): ReadonlyMap<string, readonly Run[]> {
  const settled = new Map<string, readonly Run[]>();
  for (const id of ids) {
    const line = findLine(d, id)?.line;
    const r = line && referenceBeneath(d, line);
    const picture = r && pictures.get(r.id);
    if (!line || !r || !picture) continue;
    const own = nodes.size > 0 ? (nodes.get(id) ?? new Set<string>()) : undefined;
    const runs = settledRuns(line, r, picture, figures, own);
    if (runs !== line.runs) settled.set(id, runs);
  }
  if (nodes.size === 0 && settled.size > 0) mend(d, settled, inkJudge(d, pictures, figures.reach));
  return settled;
}

/** Puts right what lines in their new shapes brought. */
function mend(d: Drawing, settled: Map<string, readonly Run[]>, judge: Judge): void {
  const own: Judge = (before, after, at, around) =>
    settled.has(before.id) ? judge(before, after, at, around) : Infinity;
  const lenient: Judge = (...asked) => {
    const worse = own(...asked);
    return worse <= LENIENT ? 0 : worse;
  };
  const [before, after] = [d, applyChange(d, { id: 'settled', ...reshapeLines(d, settled, 'Settle') })];
  const boxes = [...settled.keys()].flatMap((id) => boxesOf(id, before, after));
  const had = new Set(findNotes(around(before, boxes)).map(keyOf));
  let now = around(after, boxes);
  let isStrict = true;
  for (let round = 0; round < ROUNDS; round++) {
    const fresh = findNotes(now).filter((n) => settled.has(n.lines[0]) && !had.has(keyOf(n)));
    if (fresh.length === 0) return;
    const fixed = (by: Judge): Edit => fixAll(now, fresh, 'Settle', noteLimits, by).edit;
    let edit = fixed(isStrict ? own : lenient);
    // What is left would be seen as a fault: a line may then lie a little worse than it might.
    if (isStrict && edit.steps.length === 0) {
      isStrict = false;
      edit = fixed(lenient);
    }
    if (edit.steps.length === 0) return;
    now = applyChange(now, { id: `round ${round}`, ...edit });
    for (const id of settled.keys()) {
      const line = findLine(now, id)?.line;
      if (line) settled.set(id, line.runs);
    }
  }
}

/** The same thing at the same end of a line, or anywhere on it, wherever it now lies. */
const keyOf = ({ kind, lines, end }: Note): string => `${kind} ${lines[0]} ${end ? `${end.run} ${end.atStart}` : ''}`;

const boxesOf = (id: string, ...drawings: Drawing[]): Box[] =>
  drawings.flatMap((x) => {
    const line = findLine(x, id)?.line;
    return line ? growBox(skeletonBox(line), 2 * noteLimits.reach) : [];
  });

/** A drawing with only the lines that come near some boxes, each sheet's in one list. */
function around(d: Drawing, boxes: readonly Box[]): Drawing {
  const tree = new RBush<Box>().load([...boxes]);
  const isNear = (l: Line): boolean => tree.collides(skeletonBox(l));
  return { ...d, sheets: d.sheets.map((s) => ({ ...s, items: linesOf(s).filter(isNear) })) };
}

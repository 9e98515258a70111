import { runFromCubics } from '../drawing/fromCubics';
import { findItem, findLine, listOf, orderOf, ownerOf, type Found } from '../drawing/find';
import { isLine, linesOf } from '../drawing/items';
import type { Drawing, Line, Style } from '../drawing/schema';
import { byList } from '../drawing/whole';
import type { Cubic } from '../geometry/cubic';
import type { Step } from '../change/change';
import { edit, type Edit } from '../change/edit';
import { listSteps } from './listSteps';

/** A shape that strokes become: closed outlines, and the lines whose strokes it is made of. */
export type Shape = { readonly of: readonly string[]; readonly outlines: readonly (readonly Cubic[])[] };

const MOST_RUNS = 2_000;

/**
 * Strokes turned into filled shapes of their own outlines. Each shape lies where the uppermost of its lines lay and has
 * its colour; a line that has a fill stays below as that. `fresh` makes an id for each line that is new. `shapes` are the
 * ids of what the strokes have become.
 */
export function strokesToShapes(
  d: Drawing,
  shapes: readonly Shape[],
  fresh: () => string,
  label: string,
): Edit & { readonly shapes: string[] } {
  const made: string[] = [];
  const gone = new Set(shapes.flatMap((s) => s.of));
  const byTop = new Map<string, Shape[]>();
  for (const s of shapes) {
    const top = topOf(d, s)?.line.id;
    if (top !== undefined) byTop.set(top, [...(byTop.get(top) ?? []), s]);
  }
  const instead = (line: Line): Line[] => {
    const own = byTop.get(line.id) ?? [];
    const filled = line.style.fill ? [{ ...withoutMarks(line), id: fresh(), style: { ...line.style, width: 0 } }] : [];
    const next = own.map((s) => shapeLine(line, s, fresh()));
    made.push(...next.map((l) => l.id));
    return [...filled, ...next];
  };
  const lists = byList([...gone].flatMap((id) => findItem(d, id) ?? []));
  const steps = lists.flatMap(([found]): Step[] => {
    const items = listOf(found);
    const after = items.flatMap((item) => (isLine(item) && gone.has(item.id) ? instead(item) : [item]));
    return listSteps(ownerOf(found), items, after);
  });
  return { ...edit(label, steps), shapes: made };
}

/** The uppermost of the lines that a shape is made of. */
function topOf(d: Drawing, shape: Shape): Found | null {
  const found = shape.of.flatMap((id) => findLine(d, id) ?? []);
  const order = (f: Found): number => d.sheets.indexOf(f.sheet) * 1e6 + orderOf(linesOf(f.sheet)).get(f.line.id)!;
  return found.reduce<Found | null>((a, b) => (!a || order(b) > order(a) ? b : a), null);
}

function shapeLine(line: Line, { outlines }: Shape, id: string): Line {
  const { stroke, cap, join } = line.style;
  const style: Style = { stroke, cap, join, width: 0, fill: stroke };
  const runs = outlines.slice(0, MOST_RUNS).map((o) => runFromCubics([...o], true));
  const { opacity, blend } = line;
  return { id, runs, style, ...(opacity !== undefined && { opacity }), ...(blend && { blend }) };
}

function withoutMarks({ marks: _, ...line }: Line): Line {
  return line;
}

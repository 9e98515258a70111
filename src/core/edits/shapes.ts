import { runFromCubics } from '../drawing/fromCubics';
import { findLine, itemIn, orderOf, type Found } from '../drawing/find';
import type { Group, Item } from '../drawing/item';
import { isLine, linesOf } from '../drawing/items';
import type { Drawing, Line, Style } from '../drawing/schema';
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
  const tops = new Map(shapes.map((s) => [s, topOf(d, s)]));
  const instead = (line: Line): Line[] => {
    const own = shapes.filter((s) => tops.get(s)?.line.id === line.id);
    const filled = line.style.fill ? [{ ...withoutMarks(line), id: fresh(), style: { ...line.style, width: 0 } }] : [];
    const next = own.map((s) => shapeLine(line, s, fresh()));
    made.push(...next.map((l) => l.id));
    return [...filled, ...next];
  };
  const steps = lists(d, gone).flatMap(({ sheet, group }): Step[] => {
    const items: readonly Item[] = group === undefined ? sheet.items : (itemIn(sheet, group)!.item as Group).items;
    const after = items.flatMap((item) => (isLine(item) && gone.has(item.id) ? instead(item) : [item]));
    return listSteps({ sheet: sheet.id, ...(group !== undefined && { group }) }, items, after);
  });
  return { ...edit(label, steps), shapes: made };
}

/** The lists that hold some lines, each once. */
function lists(d: Drawing, ids: ReadonlySet<string>): Pick<Found, 'sheet' | 'group'>[] {
  const found = [...ids].flatMap((id) => findLine(d, id) ?? []);
  return [...new Map(found.map((f) => [`${f.sheet.id} ${f.group ?? ''}`, f])).values()];
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

import { findLine, findLines, placeOf, sheetOf, type Found } from '../drawing/find';
import { movedRuns } from '../drawing/run';
import { itemOnGrid, pointOnGrid, runsOnGrid } from '../drawing/grid';
import { linesOfItem } from '../drawing/items';
import type { Drawing, Line, Mark, Run, Style } from '../drawing/schema';
import { wholeItemsOf } from '../drawing/whole';
import type { Point } from '../geometry/point';
import { carriedMarks } from '../ink/carriedMarks';
import type { Step } from '../change/change';
import { counted, edit, type Edit } from '../change/edit';
import { isSame } from '../change/steps/sides';

/** A new line on top of its sheet. */
export function addLine(d: Drawing, sheet: string, line: Line, label = 'Draw line'): Edit {
  const index = sheetOf(d, sheet)?.items.length ?? 0;
  return edit(label, { step: 'insertItem', at: { sheet, index }, item: line });
}

/**
 * Lines with other runs, by their id; their width marks stay at the nodes that they lie between. A line that would be left
 * with no node is removed.
 */
export function reshapeLines(d: Drawing, runsById: ReadonlyMap<string, readonly Run[]>, label: string): Edit {
  const steps: Step[] = [];
  const gone: string[] = [];
  for (const [id, runs] of runsById) {
    const found = findLine(d, id);
    if (!found || found.line.runs === runs) continue;
    if (runs.length === 0) gone.push(id);
    else steps.push(runsStep(found, runs, marksFor(found.line, runs)));
  }
  return edit(label, steps, removeLines(d, gone).steps);
}

function runsStep({ sheet, line }: Found, runs: readonly Run[], marks: readonly Mark[] | undefined): Step {
  const moved = marks !== line.marks && marks;
  return {
    step: 'setLine',
    sheet: sheet.id,
    id: line.id,
    before: { runs: line.runs, ...(moved && { marks: line.marks }) },
    after: { runs, ...(moved && { marks }) },
  };
}

/** An edit that sets a line anew, with these width marks for it. */
export const withMarks = ({ label, steps }: Edit, line: Line, marks: readonly Mark[]): Edit =>
  edit(
    label,
    steps.map((s) =>
      s.step === 'setLine' && s.id === line.id
        ? { ...s, before: { ...s.before, marks: [...(line.marks ?? [])] }, after: { ...s.after, marks: [...marks] } }
        : s,
    ),
  );

function marksFor({ marks, runs: before }: Line, runs: readonly Run[]): readonly Mark[] | undefined {
  if (!marks?.length || before.length > 1 || runs.length > 1) return marks;
  return carriedMarks(marks, before[0], runs[0]);
}

/** Lines taken away; a group of which none is left goes with them. */
export function removeLines(d: Drawing, ids: Iterable<string>, label?: string): Edit {
  const wanted = new Set(ids);
  const found = wholeItemsOf(d, wanted);
  const count = found.reduce((n, f) => n + linesOfItem(f.item).length, 0);
  // From the top down, so that no removal shifts the place of one that is still to come.
  return edit(
    label ?? counted('Delete', count, 'line'),
    found.reverse().map((f): Step => ({ step: 'removeItem', at: placeOf(f), item: f.item })),
  );
}

/** Lines moved, and groups that they fill as a whole. One short step moves any number of them, if they lie on the grid. */
export function moveLines(d: Drawing, ids: Iterable<string>, by: Point): Edit {
  const offset = pointOnGrid(by);
  const wanted = new Set(ids);
  const found = wholeItemsOf(d, wanted);
  const onGrid: string[] = [];
  const others: Line[] = [];
  let count = 0;
  for (const { item } of found) {
    count += linesOfItem(item).length;
    if (itemOnGrid(item) === item) onGrid.push(item.id);
    else others.push(...linesOfItem(item));
  }
  return edit(
    counted('Move', count, 'line'),
    onGrid.length > 0 ? { step: 'translate', ids: onGrid, by: offset } : [],
    others.map((line) => {
      const f = findLine(d, line.id)!;
      return runsStep(f, runsOnGrid(movedRuns(line.runs, offset)), line.marks);
    }),
  );
}

/** Style for lines; the sheets they are on take it too, so that their next line is alike. */
export function styleLines(d: Drawing, ids: Iterable<string>, style: Partial<Style>, label: string): Edit {
  const found = findLines(d, ids);
  const differs = (s: Style) => (Object.keys(style) as (keyof Style)[]).some((k) => !isSame(s[k], style[k]));
  const sheets = [...new Set(found.map((f) => f.sheet))].filter((s) => differs(s.style));
  return edit(
    label,
    found.filter(({ line }) => differs(line.style)).map((f) => lineStyleStep(f, styled(f.line.style, style))),
    sheets.map((s) => styleStep(s.id, s.style, style)),
  );
}

/** A line in another style. */
export const lineStyleStep = ({ sheet, line }: Found, after: Style): Step => ({
  step: 'setLine',
  sheet: sheet.id,
  id: line.id,
  before: { style: line.style },
  after: { style: after },
});

/** The style that the next line of a sheet takes. */
export function styleSheet(d: Drawing, id: string, style: Partial<Style>, label: string): Edit {
  const sheet = sheetOf(d, id);
  return edit(label, sheet ? styleStep(id, sheet.style, style) : []);
}

/** A style with some of it changed. What is as it would be without saying so is not said. */
function styled(before: Style, change: Partial<Style>): Style {
  const { miterLimit, dash, strokeBelow, fillRule, nib, wobble, overrun, seed, ...plain } = { ...before, ...change };
  return {
    ...plain,
    ...(miterLimit !== undefined && miterLimit !== 4 && { miterLimit }),
    ...(dash && { dash }),
    ...(strokeBelow && { strokeBelow }),
    ...(fillRule && { fillRule }),
    ...(nib && nib.kind !== 'round' && { nib }),
    ...(wobble && { wobble }),
    ...(overrun && { overrun }),
    ...(seed && { seed }),
  };
}

const styleStep = (id: string, before: Style, style: Partial<Style>): Step => ({
  step: 'setSheet',
  id,
  before: { style: before },
  after: { style: styled(before, style) },
});

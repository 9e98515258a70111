import { findLine, sheetOf, type Found } from '../drawing/find';
import { lineOnGrid, pointOnGrid, runsOnGrid } from '../drawing/grid';
import type { Drawing, Line, Mark, Node, Run, Style } from '../drawing/schema';
import { add, type Point } from '../geometry/point';
import { carriedMarks } from '../ink/carriedMarks';
import { darker, fillBeside } from '../ink/tint';
import { applyChange } from './apply';
import type { Step } from './change';
import { counted, edit, type Edit } from './edit';

/** A new line on top of its sheet. */
export function addLine(d: Drawing, sheet: string, line: Line, label = 'Draw line'): Edit {
  const index = sheetOf(d, sheet)?.lines.length ?? 0;
  return edit(label, { step: 'insertLine', sheet, index, line });
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

/** The lines of these ids that are there, each once. */
const linesOf = (d: Drawing, ids: Iterable<string>): Found[] =>
  [...new Set(ids)].flatMap((id) => findLine(d, id) ?? []);

export function removeLines(d: Drawing, ids: Iterable<string>, label?: string): Edit {
  const found = linesOf(d, ids);
  // From the top down, so that no removal shifts the place of one that is still to come.
  found.sort((a, b) => b.index - a.index);
  return edit(
    label ?? counted('Delete', found.length, 'line'),
    found.map(({ sheet, index, line }): Step => ({ step: 'removeLine', sheet: sheet.id, index, line })),
  );
}

/** Lines moved. One short step moves any number of them, as long as they lie on the grid. */
export function moveLines(d: Drawing, ids: Iterable<string>, by: Point): Edit {
  const offset = pointOnGrid(by);
  const found = linesOf(d, ids);
  const onGrid = found.filter(({ line }) => lineOnGrid(line) === line).map(({ line }) => line.id);
  const others = found.filter(({ line }) => lineOnGrid(line) !== line);
  return edit(
    counted('Move', found.length, 'line'),
    onGrid.length > 0 ? { step: 'translate', ids: onGrid, by: offset } : [],
    others.map((f) => runsStep(f, runsOnGrid(movedRuns(f.line.runs, offset)), f.line.marks)),
  );
}

export const movedRuns = (runs: readonly Run[], by: Point): Run[] =>
  runs.map((r) => ({ ...r, nodes: r.nodes.map((n): Node => ({ ...n, point: add(n.point, by) })) }));

/**
 * Style for lines; the sheets they are on take it too, so that their next line is alike. Lines whose tint follows a fill
 * beside them go with it.
 */
export function styleLines(d: Drawing, ids: Iterable<string>, style: Partial<Style>, label: string): Edit {
  const found = linesOf(d, ids);
  const differs = (s: Style) => (Object.keys(style) as (keyof Style)[]).some((k) => s[k] !== style[k]);
  const sheets = [...new Set(found.map((f) => f.sheet))].filter((s) => differs(s.style));
  const restyled = edit(
    label,
    found.filter(({ line }) => differs(line.style)).map((f) => lineStyleStep(f, styled(f.line.style, style))),
    sheets.map((s) => styleStep(s.id, s.style, style)),
  );
  return style.fill === undefined ? restyled : edit(label, restyled.steps, tintsAfter(d, restyled));
}

/** A line in another style. */
export const lineStyleStep = ({ sheet, line }: Found, after: Style): Step => ({
  step: 'setLine',
  sheet: sheet.id,
  id: line.id,
  before: { style: line.style },
  after: { style: after },
});

/** What lines that follow the fill of another line become when an edit changes it. */
function tintsAfter(d: Drawing, change: Edit): Step[] {
  const after = applyChange(d, { id: 'filled', ...change });
  return after.sheets.flatMap((sheet) =>
    sheet.lines.flatMap((line, index): Step[] => {
      const { tint, fill } = line.style;
      if (tint === undefined || fill) return [];
      const was = findLine(d, line.id)?.line;
      const beside = fillBeside(after, line);
      if (!was || !beside || beside === fillBeside(d, was)) return [];
      return [lineStyleStep({ sheet, line, index }, { ...line.style, colour: darker(beside, tint) })];
    }),
  );
}

/** The style that the next line of a sheet takes. */
export function styleSheet(d: Drawing, id: string, style: Partial<Style>, label: string): Edit {
  const sheet = sheetOf(d, id);
  return edit(label, sheet ? styleStep(id, sheet.style, style) : []);
}

/** A style with some of it changed. What is as it would be without saying so is not said. */
function styled(before: Style, change: Partial<Style>): Style {
  const { miterLimit, dash, strokeBelow, nib, wobble, overrun, seed, tint, ...plain } = { ...before, ...change };
  // A colour that is set by itself follows no fill.
  const follows = change.colour !== undefined && change.tint === undefined ? undefined : tint;
  return {
    ...plain,
    ...(follows !== undefined && { tint: follows, ...(plain.fill && { colour: darker(plain.fill, follows) }) }),
    ...(miterLimit !== undefined && miterLimit !== 4 && { miterLimit }),
    ...(dash && { dash }),
    ...(strokeBelow && { strokeBelow }),
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

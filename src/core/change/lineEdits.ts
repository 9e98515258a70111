import { findLine, sheetOf, type Found } from '../drawing/find';
import type { Drawing, Line, Node, Run, Style } from '../drawing/schema';
import { add, type Point } from '../geometry/point';
import { darker } from '../ink/tint';
import type { Step } from './change';
import { counted, edit, type Edit } from './edit';

/** A new line on top of its sheet. */
export function addLine(d: Drawing, sheet: string, line: Line, label = 'Draw line'): Edit {
  const index = sheetOf(d, sheet)?.lines.length ?? 0;
  return edit(label, { step: 'insertLine', sheet, index, line });
}

/** Lines with other runs, by their id. A line that would be left with no node is removed. */
export function reshapeLines(d: Drawing, runsById: ReadonlyMap<string, readonly Run[]>, label: string): Edit {
  const steps: Step[] = [];
  const gone: string[] = [];
  for (const [id, runs] of runsById) {
    const found = findLine(d, id);
    if (!found || found.line.runs === runs) continue;
    if (runs.length === 0) gone.push(id);
    else steps.push({ step: 'setLine', sheet: found.sheet.id, id, before: { runs: found.line.runs }, after: { runs } });
  }
  return edit(label, steps, removeLines(d, gone).steps);
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

export function moveLines(d: Drawing, ids: Iterable<string>, by: Point): Edit {
  const runs = new Map(linesOf(d, ids).map(({ line }) => [line.id, movedRuns(line.runs, by)]));
  return reshapeLines(d, runs, counted('Move', runs.size, 'line'));
}

export const movedRuns = (runs: readonly Run[], by: Point): Run[] =>
  runs.map((r) => ({ ...r, nodes: r.nodes.map((n): Node => ({ ...n, point: add(n.point, by) })) }));

/** Style for lines; the sheets they are on take it too, so that their next line is alike. */
export function styleLines(d: Drawing, ids: Iterable<string>, style: Partial<Style>, label: string): Edit {
  const found = linesOf(d, ids);
  const differs = (s: Style) => (Object.keys(style) as (keyof Style)[]).some((k) => s[k] !== style[k]);
  const sheets = [...new Set(found.map((f) => f.sheet))].filter((s) => differs(s.style));
  return edit(
    label,
    found
      .filter(({ line }) => differs(line.style))
      .map(({ sheet, line }): Step => ({
        step: 'setLine',
        sheet: sheet.id,
        id: line.id,
        before: { style: line.style },
        after: { style: styled(line.style, style) },
      })),
    sheets.map((s) => styleStep(s.id, s.style, style)),
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
    ...(follows !== undefined && plain.fill && { tint: follows, colour: darker(plain.fill, follows) }),
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

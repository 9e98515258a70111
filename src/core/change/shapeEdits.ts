import { runFromCubics } from '../drawing/fromCubics';
import { findLine, sheetOf } from '../drawing/find';
import type { Drawing, Line, Style } from '../drawing/schema';
import type { Cubic } from '../geometry/cubic';
import type { Step } from './change';
import { edit, type Edit } from './edit';

/** A shape that strokes become: closed outlines, and the lines whose strokes it is made of. */
export type Shape = { readonly of: readonly string[]; readonly outlines: readonly (readonly Cubic[])[] };

const MOST_RUNS = 2_000;

/**
 * Strokes turned into filled shapes of their own outlines. Each shape lies where the uppermost of its lines lay and has
 * its colour; a line that has a fill stays below as that. `fresh` makes an id for each line that is new.
 */
export function strokesToShapes(d: Drawing, shapes: readonly Shape[], fresh: () => string, label: string): Edit {
  const steps: Step[] = [];
  const gone = new Set(shapes.flatMap((s) => s.of));
  for (const sheet of d.sheets) {
    const here = shapes.filter((s) => topOf(d, s)?.sheet === sheet.id);
    if (here.length === 0 && !sheet.lines.some((l) => gone.has(l.id))) continue;
    const after = sheet.lines.flatMap((line): Line[] => {
      if (!gone.has(line.id)) return [line];
      const own = here.filter((s) => topOf(d, s)?.line.id === line.id);
      const filled = line.style.fill ? [{ ...withoutMarks(line), style: { ...line.style, width: 0 } }] : [];
      return [...filled, ...own.map((s, i) => shapeLine(line, s, filled.length === 0 && i === 0 ? line.id : fresh()))];
    });
    // From the top down, then from the bottom up: no step shifts the place of one still to come.
    sheet.lines.forEach((line, index) => {
      if (gone.has(line.id)) steps.unshift({ step: 'removeLine', sheet: sheet.id, index, line });
    });
    after.forEach((line, index) => {
      if (!sheet.lines.includes(line)) steps.push({ step: 'insertLine', sheet: sheet.id, index, line });
    });
  }
  return edit(label, ordered(steps));
}

/** Removals first. */
const ordered = (steps: readonly Step[]): Step[] => [
  ...steps.filter((s) => s.step === 'removeLine'),
  ...steps.filter((s) => s.step !== 'removeLine'),
];

/** The uppermost of the lines that a shape is made of. */
function topOf(d: Drawing, shape: Shape): { line: Line; sheet: string } | null {
  const found = shape.of.flatMap((id) => findLine(d, id) ?? []);
  const order = (f: (typeof found)[number]): number => d.sheets.indexOf(sheetOf(d, f.sheet.id)!) * 1e6 + f.index;
  const top = found.reduce<(typeof found)[number] | null>((a, b) => (!a || order(b) > order(a) ? b : a), null);
  return top && { line: top.line, sheet: top.sheet.id };
}

function shapeLine(line: Line, { outlines }: Shape, id: string): Line {
  const { colour, cap, join } = line.style;
  const style: Style = { colour, cap, join, width: 0, fill: colour };
  const runs = outlines.slice(0, MOST_RUNS).map((o) => runFromCubics([...o], true));
  return { id, runs, style, ...(line.groups && { groups: line.groups }) };
}

function withoutMarks({ marks: _, ...line }: Line): Line {
  return line;
}

import { runsOnGrid } from '../grid';
import type { Run } from '../schema';
import { eachOf, isRaw, type Raw, type Upgrade } from './upgrade';

/**
 * Places came to lie on a grid. Under this number, references had no target at first (they were sketches: ink), and notes
 * could not be waved through; both came without another number.
 */
export const fromOne: Upgrade = {
  from: 1,
  drawing: (d) => ({
    ...d,
    schema: 2,
    waved: d.waved ?? [],
    references: eachOf(d.references, withTarget),
    sheets: eachOf(d.sheets, sheetOnGrid),
  }),
  items: (list) => list.map(lineOnGrid),
  steps: (steps) => steps.map(step),
};

function step(s: Raw): Raw {
  if (s.reference !== undefined) return { ...s, reference: withTarget(s.reference) };
  if (s.line !== undefined) return { ...s, line: lineOnGrid(s.line) };
  if (isRaw(s.sheet)) return { ...s, sheet: sheetOnGrid(s.sheet) };
  return s.step === 'setLine' ? { ...s, before: lineOnGrid(s.before), after: lineOnGrid(s.after) } : s;
}

function withTarget(r: unknown): unknown {
  return isRaw(r) ? { ...r, target: r.target ?? 'ink' } : r;
}

/** A line, or some of one; without runs it is as it was. */
function lineOnGrid(l: unknown): unknown {
  return isRaw(l) && Array.isArray(l.runs) ? { ...l, runs: runsOnGrid(l.runs as Run[]) } : l;
}

function sheetOnGrid(s: unknown): unknown {
  return isRaw(s) ? { ...s, lines: eachOf(s.lines, lineOnGrid) } : s;
}

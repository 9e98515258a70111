import { linesOnGrid, runsOnGrid } from '../grid';
import type { Line, Run } from '../schema';
import { eachOf, isRaw, type Upgrade } from './upgrade';

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
  step(s) {
    if (s.reference !== undefined) return { ...s, reference: withTarget(s.reference) };
    if (s.line !== undefined) return { ...s, line: lineOnGrid(s.line) };
    if (isRaw(s.sheet)) return { ...s, sheet: sheetOnGrid(s.sheet) };
    return s.step === 'setLine' ? { ...s, before: lineOnGrid(s.before), after: lineOnGrid(s.after) } : s;
  },
};

const withTarget = (r: unknown): unknown => (isRaw(r) ? { ...r, target: r.target ?? 'ink' } : r);

/** A line, or some of one; without runs it is as it was. */
const lineOnGrid = (l: unknown): unknown =>
  isRaw(l) && Array.isArray(l.runs) ? { ...l, runs: runsOnGrid(l.runs as Run[]) } : l;

const sheetOnGrid = (s: unknown): unknown =>
  isRaw(s) && Array.isArray(s.lines) ? { ...s, lines: linesOnGrid(s.lines as Line[]) } : s;

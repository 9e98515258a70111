import { lineOnGrid, linesOnGrid, nodesOnGrid, pointOnGrid } from '../drawing/grid';
import type { Drawing, Line, Sheet } from '../drawing/schema';
import type { Change, Step } from './change';

/** A step with what it makes on the grid; with `both`, what it says was there before as well. */
export function stepOnGrid(s: Step, both: boolean): Step {
  switch (s.step) {
    case 'insertLine':
      return { ...s, line: lineOnGrid(s.line as Line) };
    case 'removeLine':
      return both ? { ...s, line: lineOnGrid(s.line as Line) } : s;
    case 'insertSheet':
    case 'removeSheet':
      return s.step === 'insertSheet' || both ? { ...s, sheet: sheetOnGrid(s.sheet as Sheet) } : s;
    case 'setLine':
      return { ...s, before: both ? sideOnGrid(s.before) : s.before, after: sideOnGrid(s.after) };
    case 'setNodes':
      return { ...s, before: both ? nodesOnGrid(s.before) : s.before, after: nodesOnGrid(s.after) };
    case 'translate':
      return { ...s, by: pointOnGrid(s.by) };
    default:
      return s;
  }
}

type LineSide = Extract<Step, { step: 'setLine' }>['after'];
const sideOnGrid = (side: LineSide): LineSide => (side.runs ? lineOnGrid(side as LineSide & Pick<Line, 'runs'>) : side);

const sheetOnGrid = (s: Sheet): Sheet => ({ ...s, lines: linesOnGrid(s.lines) });

/** A change from outside, which need know nothing of the grid. */
export const changeOnGrid = (change: Change): Change => ({
  ...change,
  steps: change.steps.map((s) => stepOnGrid(s, true)),
});

/** A drawing with all its places on the grid. */
export const drawingOnGrid = (d: Drawing): Drawing => ({ ...d, sheets: d.sheets.map(sheetOnGrid) });

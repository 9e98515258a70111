import type { Item } from '../drawing/item';
import { mapped } from '../drawing/items';
import { plainly } from '../drawing/plain';
import { itemOnGrid, itemsOnGrid, lineOnGrid, nodesOnGrid, pointOnGrid } from '../drawing/grid';
import type { Drawing, Line, Sheet } from '../drawing/schema';
import type { Change, Step } from './change';

/** A step with what it makes on the grid; with `both`, what it says was there before as well. */
export function stepOnGrid(s: Step, both: boolean): Step {
  switch (s.step) {
    case 'insertItem':
    case 'removeItem':
      return s.step === 'insertItem' || both ? { ...s, item: plainly(itemOnGrid(s.item as Item)) } : s;
    case 'setGroup':
      return { ...s, before: both ? groupOnGrid(s.before) : s.before, after: groupOnGrid(s.after) };
    case 'setPicture':
      return { ...s, before: both ? pictureOnGrid(s.before) : s.before, after: pictureOnGrid(s.after) };
    case 'insertSheet':
    case 'removeSheet':
      return s.step === 'insertSheet' || both ? { ...s, sheet: sheetOnGrid(s.sheet as Sheet) } : s;
    case 'setLine':
      return { ...s, before: both ? sideOnGrid(s.before) : s.before, after: sideOnGrid(s.after) };
    case 'setNodes':
      return { ...s, before: both ? nodesOnGrid(s.before) : s.before, after: nodesOnGrid(s.after) };
    case 'setFlat':
      return { ...s, before: both ? flatOnGrid(s.before) : s.before, after: flatOnGrid(s.after) };
    case 'translate':
      return { ...s, by: pointOnGrid(s.by) };
    default:
      return s;
  }
}

type LineSide = Extract<Step, { step: 'setLine' }>['after'];
const sideOnGrid = (side: LineSide): LineSide => (side.runs ? lineOnGrid(side as LineSide & Pick<Line, 'runs'>) : side);

type GroupSide = Extract<Step, { step: 'setGroup' }>['after'];
const groupOnGrid = (side: GroupSide): GroupSide =>
  side.clip ? { ...side, clip: lineOnGrid(side.clip as Line) } : side;

type PictureSide = Extract<Step, { step: 'setPicture' }>['after'];
const pictureOnGrid = (side: PictureSide): PictureSide => (side.at ? { ...side, at: pointOnGrid(side.at) } : side);

type FlatSide = Extract<Step, { step: 'setFlat' }>['after'];
const flatOnGrid = (side: FlatSide): FlatSide => ({
  ...side,
  ...(side.at && { at: pointOnGrid(side.at) }),
  ...(side.runs && { runs: lineOnGrid({ runs: side.runs as Line['runs'] }).runs }),
});

const sheetOnGrid = (s: Sheet): Sheet => ({ ...s, items: mapped(itemsOnGrid(s.items), plainly) });

/** A change from outside, which need know nothing of the grid. */
export const changeOnGrid = (change: Change): Change => ({
  ...change,
  steps: change.steps.map((s) => stepOnGrid(s, true)),
});

/** A drawing with all its places on the grid. */
export const drawingOnGrid = (d: Drawing): Drawing => ({ ...d, sheets: d.sheets.map(sheetOnGrid) });

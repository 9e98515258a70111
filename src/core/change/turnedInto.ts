import type { Drawing, Line, Page, Reference, Sheet } from '../drawing/schema';
import type { Step } from './change';
import { edit, sidesOf, type Edit } from './edit';

/**
 * The edit that makes one state of a drawing into another, by as little as differs: what is on both stays, is moved, or has
 * some of it set anew. To go back to a version is such an edit, and can be taken back like any other.
 */
export function turnedInto(now: Drawing, then: Drawing, label: string): Edit {
  const stays = (s: Sheet): Sheet | undefined => then.sheets.find((t) => t.id === s.id);
  // Lines that leave their sheet go first: nothing is ever in two places.
  const kept = now.sheets.map((s): Sheet => {
    const ids = new Set(stays(s)?.lines.map((l) => l.id));
    return stays(s) ? { ...s, lines: s.lines.filter((l) => ids.has(l.id)) } : s;
  });
  return edit(
    label,
    pageSteps(now.page, then.page),
    drawingSteps(now, then),
    referenceSteps(now.references, then.references),
    now.sheets.flatMap((s) => (stays(s) ? lineRemovals(s, stays(s)!) : [])),
    ordered(kept, then.sheets, {
      remove: (index, sheet) => [{ step: 'removeSheet', index, sheet }],
      insert: (index, sheet) => [{ step: 'insertSheet', index, sheet }],
      move: (from, to) => [{ step: 'moveSheet', from, to }],
    }),
    kept.flatMap((s) => (stays(s) ? sheetSteps(s, stays(s)!) : [])),
  );
}

function pageSteps(now: Page, then: Page): Step[] {
  const sides = sidesOf(now, then);
  return sides ? [{ step: 'setPage', ...sides } as Step] : [];
}

const ofDrawing = ({ dim, folders, waved, profiles = [] }: Drawing) => ({ dim, folders, waved, profiles });

function drawingSteps(now: Drawing, then: Drawing): Step[] {
  const sides = sidesOf(ofDrawing(now), ofDrawing(then));
  return sides ? [{ step: 'setDrawing', ...sides } as Step] : [];
}

function referenceSteps(now: readonly Reference[], then: readonly Reference[]): Step[] {
  const order = ordered(now, then, {
    remove: (index, reference) => [{ step: 'removeReference', index, reference }],
    insert: (index, reference) => [{ step: 'insertReference', index, reference }],
    move: (from, to) => [{ step: 'moveReference', from, to }],
  });
  return [...order, ...changed(now, then).map(([id, sides]) => ({ step: 'setReference', id, ...sides }) as Step)];
}

function lineRemovals(now: Sheet, then: Sheet): Step[] {
  const ids = new Set(then.lines.map((l) => l.id));
  return now.lines
    .map((line, index): Step => ({ step: 'removeLine', sheet: now.id, index, line }))
    .filter((s) => s.step === 'removeLine' && !ids.has(s.line.id))
    .reverse();
}

/** A sheet that stays, of whose lines those that do not are gone already. */
function sheetSteps(now: Sheet, then: Sheet): Step[] {
  const { lines: own, ...look } = now;
  const { lines: wanted, ...wantedLook } = then;
  const sides = sidesOf(look, wantedLook);
  const insert = (index: number, line: Line): Step => ({ step: 'insertLine', sheet: now.id, index, line });
  const order = ordered(own, wanted, {
    remove: (index, line) => [{ step: 'removeLine', sheet: now.id, index, line }],
    insert: (index, line) => [insert(index, line)],
    move: (from, to, line) => [{ step: 'removeLine', sheet: now.id, index: from, line }, insert(to, line)],
  });
  const lists = ({ marks = [], groups = [], ...line }: Line) => ({ ...line, marks, groups });
  const set = changed(own.map(lists), wanted.map(lists)).map(
    ([id, s]) => ({ step: 'setLine', sheet: now.id, id, ...s }) as Step,
  );
  return [...(sides ? [{ step: 'setSheet', id: now.id, ...sides } as Step] : []), ...order, ...set];
}

/** The edit that goes back to a state that was kept by name. */
export const goneBackTo = (now: Drawing, then: Drawing, name: string): Edit =>
  turnedInto(now, then, `Go back to “${name}”`.slice(0, 200));

type Ordering<T> = {
  remove(index: number, item: T): Step[];
  insert(index: number, item: T): Step[];
  move(from: number, to: number, item: T): Step[];
};

/** The steps that bring a list to hold the same things as another, in the same order. */
function ordered<T extends { readonly id: string }>(now: readonly T[], then: readonly T[], by: Ordering<T>): Step[] {
  const steps: Step[] = [];
  const wanted = new Set(then.map((t) => t.id));
  const list = [...now];
  for (let i = list.length - 1; i >= 0; i--) {
    if (wanted.has(list[i].id)) continue;
    steps.push(...by.remove(i, list[i]));
    list.splice(i, 1);
  }
  then.forEach((item, i) => {
    if (list[i]?.id === item.id) return;
    const from = list.findIndex((l) => l.id === item.id);
    if (from < 0) {
      steps.push(...by.insert(i, item));
      list.splice(i, 0, item);
    } else {
      steps.push(...by.move(from, i, list[from]));
      list.splice(i, 0, ...list.splice(from, 1));
    }
  });
  return steps;
}

type Sides = { before: object; after: object };

/** Of what is in both lists, what differs. */
function changed<T extends { readonly id: string }>(now: readonly T[], then: readonly T[]): [string, Sides][] {
  const before = new Map(now.map((n) => [n.id, n]));
  return then.flatMap((t): [string, Sides][] => {
    const was = before.get(t.id);
    const sides = was && was !== t ? sidesOf(was, t) : null;
    return sides ? [[t.id, sides]] : [];
  });
}

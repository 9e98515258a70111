import { dequal } from 'dequal';
import { indexInSheet, keepPlaces } from '../drawing/find';
import type { Drawing, Line, Sheet } from '../drawing/schema';
import type { Change, Step } from './change';

/** A change that does not fit the drawing it was meant for. The drawing is as it was. */
export class ChangeError extends Error {
  override name = 'ChangeError';
}

/**
 * The drawing after a change.
 * @throws ChangeError when a step speaks of something that is not there, or is not as the step says it was.
 */
export const applyChange = (drawing: Drawing, change: Change): Drawing => change.steps.reduce(applyStep, drawing);

/** The change that takes `change` back. It bears an id and a label of its own. */
export const inverseOf = (change: Change, id: string, label: string): Change => ({
  id,
  label,
  steps: change.steps.map(inverseStep).reverse(),
});

function inverseStep(s: Step): Step {
  switch (s.step) {
    case 'insertLine':
      return { ...s, step: 'removeLine' };
    case 'removeLine':
      return { ...s, step: 'insertLine' };
    case 'insertSheet':
      return { ...s, step: 'removeSheet' };
    case 'removeSheet':
      return { ...s, step: 'insertSheet' };
    case 'insertReference':
      return { ...s, step: 'removeReference' };
    case 'removeReference':
      return { ...s, step: 'insertReference' };
    case 'moveSheet':
    case 'moveReference':
      return { ...s, from: s.to, to: s.from };
    default:
      return { ...s, before: s.after, after: s.before } as Step;
  }
}

function applyStep(d: Drawing, s: Step): Drawing {
  switch (s.step) {
    case 'insertLine':
      return withSheet(d, s.sheet, (sheet) => {
        if (d.sheets.some((other) => indexInSheet(other, s.line.id) >= 0))
          throw new ChangeError(`line ${s.line.id} is there already`);
        return { ...sheet, lines: inserted(sheet.lines, s.index, s.line as Line, 'line') };
      });
    case 'removeLine':
      return withSheet(d, s.sheet, (sheet) => ({ ...sheet, lines: removed(sheet.lines, s.index, s.line, 'line') }));
    case 'setLine':
      return withSheet(d, s.sheet, (sheet) => {
        const i = indexInSheet(sheet, s.id);
        if (i < 0) throw new ChangeError(`line ${s.id} is not on sheet ${s.sheet}`);
        const lines = sheet.lines.with(i, merged(sheet.lines[i], s, 'line'));
        keepPlaces(sheet.lines, lines);
        return { ...sheet, lines };
      });
    case 'insertSheet':
      if (d.sheets.some((x) => x.id === s.sheet.id)) throw new ChangeError(`sheet ${s.sheet.id} is there already`);
      return { ...d, sheets: inserted(d.sheets, s.index, s.sheet as Sheet, 'sheet') };
    case 'removeSheet':
      return { ...d, sheets: removed(d.sheets, s.index, s.sheet, 'sheet') };
    case 'setSheet':
      return withSheet(d, s.id, (sheet) => merged(sheet, s, 'sheet'));
    case 'moveSheet':
      return { ...d, sheets: moved(d.sheets, s.from, s.to, 'sheet') };
    case 'insertReference':
      if (d.references.some((x) => x.id === s.reference.id))
        throw new ChangeError(`reference ${s.reference.id} is there already`);
      return { ...d, references: inserted(d.references, s.index, s.reference, 'reference') };
    case 'removeReference':
      return { ...d, references: removed(d.references, s.index, s.reference, 'reference') };
    case 'setReference': {
      const i = d.references.findIndex((r) => r.id === s.id);
      if (i < 0) throw new ChangeError(`reference ${s.id} is not there`);
      return { ...d, references: d.references.with(i, merged(d.references[i], s, 'reference')) };
    }
    case 'moveReference':
      return { ...d, references: moved(d.references, s.from, s.to, 'reference') };
    case 'setDrawing':
      return merged(d, s, 'drawing');
    case 'setPage':
      return { ...d, page: merged(d.page, s, 'page') };
  }
}

function withSheet(d: Drawing, id: string, edit: (sheet: Sheet) => Sheet): Drawing {
  const i = d.sheets.findIndex((s) => s.id === id);
  if (i < 0) throw new ChangeError(`sheet ${id} is not there`);
  return { ...d, sheets: d.sheets.with(i, edit(d.sheets[i])) };
}

function inserted<T>(list: readonly T[], index: number, item: T, what: string): T[] {
  if (index > list.length) throw new ChangeError(`no place ${index} for a ${what}`);
  return list.toSpliced(index, 0, item);
}

function removed<T>(list: readonly T[], index: number, item: unknown, what: string): T[] {
  if (index >= list.length || !same(list[index], item))
    throw new ChangeError(`the ${what} to be removed is not as it was`);
  return list.toSpliced(index, 1);
}

function moved<T>(list: readonly T[], from: number, to: number, what: string): T[] {
  if (from >= list.length || to >= list.length) throw new ChangeError(`no ${what} at that place`);
  return list.toSpliced(from, 1).toSpliced(to, 0, list[from]);
}

function merged<T extends object>(value: T, s: { before: object; after: object }, what: string): T {
  for (const [key, was] of Object.entries(s.before)) {
    const is = (value as Record<string, unknown>)[key];
    if (!same(is, was) && !(is === undefined && isNone(key, was)))
      throw new ChangeError(`the ${what}'s ${key} is not as it was`);
  }
  for (const key of Object.keys(s.after)) {
    if (!(key in s.before)) throw new ChangeError(`the ${what}'s ${key} is set without saying what it was`);
  }
  const after = { ...value, ...s.after } as Record<string, unknown>;
  for (const key of Object.keys(s.after)) if (isNone(key, after[key])) delete after[key];
  return after as T;
}

/** Lists that are left out where there is nothing in them: then a drawing is the same as before they came. */
const leftOut = new Set(['marks', 'groups', 'profiles']);
const isNone = (key: string, value: unknown): boolean => leftOut.has(key) && Array.isArray(value) && value.length === 0;

const same = (a: unknown, b: unknown): boolean => a === b || dequal(a, b);

import type { Owner } from '../drawing/find';
import type { Item } from '../drawing/item';
import { isGroup } from '../drawing/items';
import { plainOf } from '../drawing/plain';
import type { Drawing, Sheet } from '../drawing/schema';
import type { Step } from '../change/change';
import { edit, sidesOf, type Edit } from '../change/edit';
import { listSteps } from './listSteps';

/**
 * The edit that makes one state of a drawing into another, by as little as differs: what is on both stays, is moved, or has
 * some of it set anew. To go back to a version is such an edit, and can be taken back like any other.
 */
export function diff(now: Drawing, then: Drawing, label: string): Edit {
  const stays = new Map(then.sheets.map((s) => [s.id, s]));
  const holders = holdersOf(then);
  // What leaves the list that holds it goes first: nothing is ever in two places.
  const removals: Step[] = [];
  const kept = now.sheets.map((s): Sheet =>
    stays.has(s.id) ? { ...s, items: left(s.items, { sheet: s.id }, holders, removals) } : s,
  );
  return edit(
    label,
    setSteps('setPage', {}, now.page, then.page),
    setSteps('setDrawing', {}, ofDrawing(now), ofDrawing(then)),
    ordered(now.references, then.references, {
      remove: (index, reference) => ({ step: 'removeReference', index, reference }),
      insert: (index, reference) => ({ step: 'insertReference', index, reference }),
      move: (from, to) => ({ step: 'moveReference', from, to }),
    }),
    changed(now.references, then.references).flatMap(([a, b]) => setSteps('setReference', { id: a.id }, a, b)),
    removals,
    ordered(kept, then.sheets, {
      remove: (index, sheet) => ({ step: 'removeSheet', index, sheet }),
      insert: (index, sheet) => ({ step: 'insertSheet', index, sheet }),
      move: (from, to) => ({ step: 'moveSheet', from, to }),
    }),
    kept.flatMap((s) => (stays.has(s.id) ? sheetSteps(s, stays.get(s.id)!) : [])),
  );
}

/** The edit that goes back to a state that was kept by name. */
export const goneBackTo = (now: Drawing, then: Drawing, name: string): Edit =>
  diff(now, then, `Go back to “${name}”`.slice(0, 200));

const ofDrawing = ({ dim, folders, waved, profiles = [], palette = [], gradients = [], order = [] }: Drawing) => ({
  dim,
  folders,
  waved,
  profiles,
  palette,
  gradients,
  order,
});

function setSteps<T extends object>(step: Step['step'], which: object, now: T, then: T): Step[] {
  const sides = sidesOf(now, then);
  return sides ? [{ step, ...which, ...sides } as Step] : [];
}

const holderKey = ({ sheet, group }: Owner, { kind }: Item): string => `${sheet} ${group ?? ''} ${kind ?? ''}`;

/** For each item of a drawing, the list that holds it. */
function holdersOf(d: Drawing): Map<string, string> {
  const holders = new Map<string, string>();
  const walk = (items: readonly Item[], owner: Owner): void => {
    for (const item of items) {
      holders.set(item.id, holderKey(owner, item));
      if (isGroup(item)) walk(item.items, { sheet: owner.sheet, group: item.id });
    }
  };
  for (const s of d.sheets) walk(s.items, { sheet: s.id });
  return holders;
}

/** What of a list stays in it; the steps that take the rest away are added to `steps`. */
function left(items: readonly Item[], owner: Owner, holders: ReadonlyMap<string, string>, steps: Step[]): Item[] {
  const stays = (item: Item): boolean => holders.get(item.id) === holderKey(owner, item);
  items.forEach((_, back) => {
    const index = items.length - 1 - back;
    const item = items[index];
    if (!stays(item)) steps.push({ step: 'removeItem', at: { ...owner, index }, item });
  });
  return items
    .filter(stays)
    .map((item) =>
      isGroup(item)
        ? { ...item, items: left(item.items, { sheet: owner.sheet, group: item.id }, holders, steps) }
        : item,
    );
}

/** A sheet that stays, of whose items those that do not are gone already. */
function sheetSteps(now: Sheet, then: Sheet): Step[] {
  const { items, ...look } = now;
  const { items: wanted, ...wantedLook } = then;
  const laid = { opacity: 1 };
  return [
    ...setSteps('setSheet', { id: now.id }, { ...laid, ...look }, { ...laid, ...wantedLook }),
    ...itemSteps({ sheet: now.id }, items, wanted),
  ];
}

function itemSteps(owner: Owner, now: readonly Item[], then: readonly Item[]): Step[] {
  const inner = changed(now, then).flatMap(([a, b]): Step[] => {
    const which = { sheet: owner.sheet, id: a.id };
    if (isGroup(a) && isGroup(b)) {
      const [{ items, ...own }, { items: wanted, ...next }] = [a, b];
      return [
        ...setSteps('setGroup', which, { ...plainOf.group, ...own }, { ...plainOf.group, ...next }),
        ...itemSteps({ sheet: owner.sheet, group: a.id }, items, wanted),
      ];
    }
    if (a.kind === 'flat') return setSteps('setFlat', which, { ...plainOf.flat, ...a }, { ...plainOf.flat, ...b });
    return a.kind === 'picture'
      ? setSteps('setPicture', which, { ...plainOf.picture, ...a }, { ...plainOf.picture, ...b })
      : setSteps('setLine', which, { ...plainOf.line, ...a }, { ...plainOf.line, ...b });
  });
  return [...listSteps(owner, now, then), ...inner];
}

type Ordering<T> = {
  remove(index: number, item: T): Step;
  insert(index: number, item: T): Step;
  move(from: number, to: number): Step;
};

/** The steps that bring a short list to hold the same things as another, in the same order. */
function ordered<T extends { readonly id: string }>(now: readonly T[], then: readonly T[], by: Ordering<T>): Step[] {
  const steps: Step[] = [];
  const wanted = new Set(then.map((t) => t.id));
  const list = [...now];
  for (let i = list.length - 1; i >= 0; i--) {
    if (wanted.has(list[i].id)) continue;
    steps.push(by.remove(i, list[i]));
    list.splice(i, 1);
  }
  then.forEach((item, i) => {
    if (list[i]?.id === item.id) return;
    const from = list.findIndex((l) => l.id === item.id);
    steps.push(from < 0 ? by.insert(i, item) : by.move(from, i));
    list.splice(i, 0, ...(from < 0 ? [item] : list.splice(from, 1)));
  });
  return steps;
}

/** Of what is in both lists, what is not the same object. */
function changed<T extends { readonly id: string }>(now: readonly T[], then: readonly T[]): [T, T][] {
  const before = new Map(now.map((n) => [n.id, n]));
  return then.flatMap((t): [T, T][] => {
    const was = before.get(t.id);
    return was && was !== t ? [[was, t]] : [];
  });
}

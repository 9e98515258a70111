import { dequal } from 'dequal';
import { isFlat, isGroup, isLine } from '../drawing/items';
import type { Drawing, Item } from '../drawing/schema';
import { inkOf, isSameInk } from './ink';
import { shownFlat } from './shownFlat';

type Leaf = Exclude<Item, { kind: 'group' }>;

/** What of one drawing is another in a later one, or an earlier; by the items' ids, groups looked into. */
export type Differences = {
  readonly added: readonly Leaf[];
  readonly gone: readonly Leaf[];
  /** As it was, and as it is. */
  readonly changed: readonly (readonly [Leaf, Leaf])[];
};

/**
 * Compares what lies on the sheets, and the colours that it is seen in: also those of swatches and gradients. Where something
 * lies in the stack does not count, nor whether its sheet is seen.
 */
export function differencesOf(then: Drawing, now: Drawing): Differences {
  const [was, is] = [leavesById(then), leavesById(now)];
  const changed: [Leaf, Leaf][] = [];
  for (const [id, leaf] of is) {
    const before = was.get(id);
    if (before && !(isSameThing(before, leaf) && isSeenAlike(then, now, leaf))) changed.push([before, leaf]);
  }
  return {
    added: [...is].flatMap(([id, leaf]) => (was.has(id) ? [] : [leaf])),
    gone: [...was].flatMap(([id, leaf]) => (is.has(id) ? [] : [leaf])),
    changed,
  };
}

const isSameThing = (a: Leaf, b: Leaf): boolean => a === b || dequal(a, b);

/** Whether something that is the same is painted the same. */
function isSeenAlike(then: Drawing, now: Drawing, leaf: Leaf): boolean {
  const line = isLine(leaf) ? leaf : isFlat(leaf) ? shownFlat(leaf) : null;
  if (!line) return true;
  const { stroke, fill } = line.style;
  return [stroke, fill].every(
    (p) => typeof p !== 'object' || !p || isSameInk(inkOf(then, p, line), inkOf(now, p, line)),
  );
}

function leavesById(d: Drawing): Map<string, Leaf> {
  const leaves = new Map<string, Leaf>();
  const walk = (items: readonly Item[]): void => {
    for (const item of items) {
      if (isGroup(item)) walk(item.items);
      else leaves.set(item.id, item);
    }
  };
  for (const s of d.sheets) walk(s.items);
  return leaves;
}

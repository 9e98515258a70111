import type { Item } from '../drawing/item';
import type { Owner } from '../drawing/find';
import type { Step } from '../change/change';

/**
 * The steps that make one list of items hold the same as another, in the same order: what is in both stays whatever it says,
 * and is moved if need be; the fewest are moved. What is new is put in whole.
 */
export function listSteps(owner: Owner, before: readonly Item[], after: readonly Item[]): Step[] {
  const wanted = new Map(after.map((item, i) => [item.id, i]));
  const gone = before.flatMap((item, index): Step[] =>
    wanted.has(item.id) ? [] : [{ step: 'removeItem', at: { ...owner, index }, item }],
  );
  const stay = before.filter((item) => wanted.has(item.id));
  const there = new Set(stay.map((item) => item.id));
  const come = after.flatMap((item, index): Step[] =>
    there.has(item.id) ? [] : [{ step: 'insertItem', at: { ...owner, index }, item }],
  );
  const order = after.filter((item) => there.has(item.id)).map((item) => item.id);
  return [
    ...gone.reverse(),
    ...reordered(
      owner,
      stay.map((item) => item.id),
      order,
    ),
    ...come,
  ];
}

/** What is in a longest run that is in order already stays; each of the others is moved to its place, the lowest first. */
function reordered(owner: Owner, now: readonly string[], then: readonly string[]): Step[] {
  const place = new Map(then.map((id, i) => [id, i]));
  const stays = new Set(longestRising(now.map((id) => place.get(id)!)).map((i) => then[i]));
  if (stays.size === now.length) return [];
  const list = [...now];
  return then.flatMap((id, to): Step[] => {
    if (stays.has(id)) return [];
    // Those before it that are still to be moved stand elsewhere: it comes after the one that it is to follow.
    const from = list.indexOf(id);
    list.splice(from, 1);
    const onto = to === 0 ? 0 : list.indexOf(then[to - 1]) + 1;
    list.splice(onto, 0, id);
    return from === onto
      ? []
      : [{ step: 'moveItems', ids: [id], from: { ...owner, at: [from] }, to: { ...owner, at: [onto] } }];
  });
}

/** A longest rising part of a list of figures (patience sorting: Fredman 1975). */
function longestRising(figures: readonly number[]): number[] {
  const tops: number[] = [];
  const before = new Map<number, number | undefined>();
  for (const f of figures) {
    let [low, high] = [0, tops.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (tops[middle] < f) low = middle + 1;
      else high = middle;
    }
    before.set(f, tops[low - 1]);
    tops[low] = f;
  }
  const rising: number[] = [];
  for (let f = tops.at(-1); f !== undefined; f = before.get(f)) rising.push(f);
  return rising.reverse();
}

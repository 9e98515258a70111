import { isDeepStrictEqual } from 'node:util';
import { applyChange, type Change, type Drawing } from '../src/core';
import type { Ended } from './messages';

/** A drawing as the server has it at the end. */
export type Found = {
  readonly id: string;
  readonly first: Drawing;
  readonly drawing: Drawing;
  readonly journal: readonly Change[];
};

export type Verdict = {
  readonly made: number;
  readonly acknowledged: number;
  readonly aside: number;
  readonly stuck: number;
  /** In a drawing of their own that a backup which was put back does not have; what was there before is a backup too. */
  readonly back: number;
  readonly faults: readonly string[];
};

/**
 * Holds what the browsers made against what the server has: each drawing is its first state with its journal played onto it,
 * each change that was made is in its drawing, in one that was put aside, or with its browser.
 */
export function judged(browsers: readonly Ended[], found: readonly Found[], takenBack: ReadonlySet<string>): Verdict {
  const faults: string[] = [];
  const bodies = new Map(browsers.flatMap((b) => b.made.map((c) => [c.id, c] as const)));
  const where = new Map<string, string[]>();
  const byId = new Map(found.map((f) => [f.id, f]));
  for (const { id, first, drawing, journal } of found) {
    const model = journal.reduce<Drawing>((d, c) => applyChange(d, bodies.get(c.id) ?? c), first);
    if (!isDeepStrictEqual(model, drawing)) faults.push(`${id} is not what its changes make of it`);
    for (const { id: change } of journal) where.set(change, [...(where.get(change) ?? []), id]);
  }
  let [aside, acknowledged, stuck, back] = [0, 0, 0, 0];
  for (const browser of browsers) {
    const apart = new Map(browser.aside);
    const taken = new Map(browser.acknowledged);
    const withBrowser = new Set(browser.stuck);
    acknowledged += browser.acknowledged.length;
    for (const { id, steps } of browser.made) {
      if (where.has(id)) continue;
      const own = apart.get(id) ?? [];
      const isIn = (place: string): boolean => {
        const there = byId.get(place);
        return !!there && lineIdsOf(steps).every((line) => hasLine(there.drawing, line));
      };
      if (own.some(isIn)) aside++;
      else if (withBrowser.has(id)) stuck++;
      else if (own.some((place) => takenBack.has(place))) back++;
      else
        faults.push(
          `${id} is lost${taken.has(id) ? `, though ${taken.get(id)} acknowledged it` : ''}${own.map((place) => `; put into ${place}, which ${byId.has(place) ? 'lacks it' : 'is gone'}`).join('')}`,
        );
    }
  }
  return { made: bodies.size, acknowledged, aside, stuck, back, faults };
}

const hasLine = (d: Drawing, id: string): boolean => d.sheets.some((s) => s.items.some((i) => i.id === id));

/** The lines that a change lays. */
const lineIdsOf = (steps: Change['steps']): string[] =>
  steps.flatMap((s) => (s.step === 'insertItem' ? [s.item.id] : []));

import type { Drawing } from '@/core';
import { touchedItems } from '@/core/change/apply';
import type { Change, Step } from '@/core/change/change';
import { followMark, followNodes } from '@/core/change/followNodes';
import { findItem, findLine, isOpenSheet, sheetOf } from '@/core/drawing/find';
import { nodeKey, nodeOfKey } from '@/core/drawing/nodeRef';
import type { BenchState } from './store';

/** Steps that can close a sheet to the hand, or take it away, without speaking of what lies on it. */
const OF_SHEETS: ReadonlySet<Step['step']> = new Set(['setSheet', 'removeSheet', 'insertSheet', 'flat']);
/** Steps after which all that was there is there, on the sheet that it was on. */
const STAYING: ReadonlySet<Step['step']> = new Set(['translate', 'setLine', 'setNodes', 'setGroup', 'setPicture']);

/**
 * What is chosen, as it is after a change: less what is no longer there or can no longer be touched, and nodes and marks where
 * they have come to stand. Without a change, whatever may have happened.
 */
export function reconciled(s: BenchState, after: Drawing, change?: Pick<Change, 'steps'>): Partial<BenchState> {
  const lines = chosenLines(s, after, change);
  const nodes = change ? followed(s, after, change) : s.nodes;
  const held = [...nodes].filter((key) => isThere(after, nodeOfKey(key).line));
  // A node that has come to lie in another line is chosen with that line.
  const own = new Set([...lines, ...held.map((key) => nodeOfKey(key).line)]);
  const isSame = own.size === s.lines.size && lines.length === own.size;
  const flats = [...s.flats].filter((id) => findItem(after, id)?.item.kind === 'flat');
  const areSame = held.length === s.nodes.size && held.every((key) => s.nodes.has(key));
  return {
    sheet: sheetOf(after, s.sheet) ? s.sheet : neighbourSheet(s, after),
    reference: after.references.some((r) => r.id === s.reference) ? s.reference : null,
    solo: s.solo !== null && sheetOf(after, s.solo) ? s.solo : null,
    ...(isSame ? {} : { lines: own }),
    ...(areSame ? {} : { nodes: new Set(held) }),
    ...(flats.length === s.flats.size ? {} : { flats: new Set(flats) }),
    mark: markAfter(s, after, [...own]),
  };
}

function chosenLines(s: BenchState, after: Drawing, change?: Pick<Change, 'steps'>): string[] {
  if (change?.steps.every((step) => STAYING.has(step.step))) return [...s.lines];
  const isOfItems = change && !change.steps.some((step) => OF_SHEETS.has(step.step));
  const touched = isOfItems ? touchedItems(change) : null;
  return [...s.lines].filter((id) => (touched && !touched.has(id)) || isThere(after, id));
}

function isThere(d: Drawing, id: string): boolean {
  const found = findLine(d, id);
  return found !== undefined && isOpenSheet(found.sheet);
}

const followed = (s: BenchState, after: Drawing, change: Pick<Change, 'steps'>): ReadonlySet<string> =>
  s.nodes.size === 0
    ? s.nodes
    : new Set(followNodes(s.drawing, after, change, [...s.nodes].map(nodeOfKey)).map(nodeKey));

function markAfter(s: BenchState, after: Drawing, lines: readonly string[]): number | null {
  if (s.mark === null || lines.length !== 1) return null;
  const marks = (d: Drawing) => findLine(d, lines[0])?.line.marks ?? [];
  return followMark(marks(s.drawing), marks(after), s.mark);
}

/** The sheet that lies where a removed one was. */
function neighbourSheet(s: BenchState, after: Drawing): string {
  const was = s.drawing.sheets.findIndex((x) => x.id === s.sheet);
  return (after.sheets[Math.max(0, Math.min(was, after.sheets.length) - 1)] ?? after.sheets.at(-1))?.id ?? '';
}

import type { Drawing, Line, Style } from '@/core';
import { findLines, holdsItem, nodeCount, ownersIn, placesIn, type Found } from '@/core/drawing/find';
import type { BenchState } from './store';

/** What the chosen lines come to. */
export type Tally = {
  readonly count: number;
  readonly nodes: number;
  readonly closed: number;
  readonly marked: number;
};

type Known = { found: readonly Found[]; tally?: Tally };

/** For each state of a drawing what was asked last: all cards ask for the same. */
const known = new WeakMap<Drawing, { lines: ReadonlySet<string>; known: Known }>();

function knownOf(drawing: Drawing, lines: ReadonlySet<string>): Known {
  const last = known.get(drawing);
  if (last?.lines === lines) return last.known;
  const fresh: Known = { found: findLines(drawing, lines) };
  known.set(drawing, { lines, known: fresh });
  return fresh;
}

type Chosen = Pick<BenchState, 'drawing' | 'lines'>;

/** The chosen lines, each with where it is. Found once for each state, however many cards ask. */
export const chosenOf = ({ drawing, lines }: Chosen): readonly Found[] => knownOf(drawing, lines).found;

/** The same as they are seen under a moving hand. */
export const seenChosen = (s: Chosen & Pick<BenchState, 'preview'>): Chosen => ({
  drawing: s.preview ?? s.drawing,
  lines: s.lines,
});

export function chosenTally({ drawing, lines }: Chosen): Tally {
  const own = knownOf(drawing, lines);
  if (own.tally) return own.tally;
  let [nodes, closed, marked] = [0, 0, 0];
  for (const { line } of own.found) {
    nodes += nodeCount(line);
    closed += Number(line.runs.every((r) => r.closed));
    marked += Number((line.marks?.length ?? 0) > 0);
  }
  return (own.tally = { count: own.found.length, nodes, closed, marked });
}

/** All that is chosen: lines and flats. */
export const chosenIds = ({ lines, flats }: Pick<BenchState, 'lines' | 'flats'>): string[] => [...lines, ...flats];

/** The one line or flat that is chosen; null where there is none, or several. */
export function onlyChosen(s: Pick<BenchState, 'lines' | 'flats'>): string | null {
  const ids = s.lines.size + s.flats.size === 1 ? chosenIds(s) : [];
  return ids[0] ?? null;
}

/** Where items lie is kept for as long as none comes, goes or changes places: so is what sheets the chosen ones are on. */
const whereabouts = new WeakMap<ReadonlySet<string>, { known: readonly object[]; sheets: ReadonlySet<string> }>();

/** The sheets that the chosen lines are on, by their ids. */
export function chosenSheets({ drawing: { sheets }, lines }: Chosen): ReadonlySet<string> {
  const known = sheets.flatMap((s) => [placesIn(s.items), ownersIn(s.items)]);
  const last = whereabouts.get(lines);
  if (last && known.length === last.known.length && known.every((map, i) => map === last.known[i])) return last.sheets;
  const ids = [...lines];
  const own = new Set(sheets.filter((s) => ids.some((id) => holdsItem(s, id))).map((s) => s.id));
  whereabouts.set(lines, { known, sheets: own });
  return own;
}

/** A value as it is with all chosen lines: undefined where there are none, null where they differ. */
export function sharedStyle<T>(s: Chosen, part: (style: Style, line: Line) => T): T | null | undefined {
  let value: T | undefined;
  for (const { line } of chosenOf(s)) {
    const own = part(line.style, line);
    if (value !== undefined && own !== value) return null;
    value = own;
  }
  return value;
}

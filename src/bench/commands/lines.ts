import { allLines, linesOf } from '@/core/drawing/items';
import { nanoid } from 'nanoid';
import type { Line } from '@/core';
import {
  groupLines,
  isWithin,
  moveInOrder,
  moveToSheet,
  ungroupLines,
  withGroup,
  type OrderMove,
} from '@/core/edits/arrange';
import type { Edit } from '@/core/change/edit';
import { joinEnds } from '@/core/edits/join';
import { towards, type End } from '@/core/drawing/end';
import { copiesOf } from '@/core/edits/transform';
import { alikeTo, type Likeness } from '@/core/scene/alike';
import { findLine, isOpenSheet } from '@/core/drawing/find';
import { distance } from '@/core/geometry/point';
import { preferences, type AlikeFigures } from '../state/preferences';
import type { Bench } from '../state/store';
import type { ToolId } from '../tools/registry';
import { takeTool } from './desk';

/** What can be done to whole lines from keys and cards alike. */

/** The lines that can be chosen: on sheets that are seen and not locked, within the group that is entered. */
function choosable(bench: Bench): Line[] {
  const { drawing, within, solo } = bench.getState();
  return drawing.sheets
    .filter((s) => isOpenSheet(s) && (solo === null || s.id === solo))
    .flatMap((s) => linesOf(s).filter((l) => isWithin(s, l.id, within)));
}

/** Tools that work on what is chosen, however much that is. */
const forChosen: readonly ToolId[] = ['select', 'nodes', 'swell', 'settle', 'thin', 'readWidths'];

/** Lines are chosen with a tool that shows it. */
function withTool(bench: Bench): void {
  if (!forChosen.includes(bench.getState().tool)) takeTool(bench, 'select');
}

export function chooseAll(bench: Bench): void {
  withTool(bench);
  bench.choose(choosable(bench).map((l) => l.id));
}

export function chooseNone(bench: Bench): void {
  bench.setState({ within: [] });
  bench.choose([]);
}

export function invertChoice(bench: Bench): void {
  const { lines } = bench.getState();
  withTool(bench);
  bench.choose(
    choosable(bench)
      .filter((l) => !lines.has(l.id))
      .map((l) => l.id),
  );
}

export const likenessOf = (f: AlikeFigures): Likeness => ({
  ...(f.width ? { width: { within: f.widthWithin } } : {}),
  ...(f.colour ? { colour: { within: f.colourWithin } } : {}),
  ...(f.fill ? { fill: { within: f.colourWithin } } : {}),
  sheet: f.sheet,
  kind: f.kind,
  closed: f.closed,
});

/** Chooses whatever is like what is chosen, in all that is ticked. */
export function chooseAlike(bench: Bench): void {
  const { drawing, lines } = bench.getState();
  if (lines.size === 0) return bench.tell('Choose a line first; what is like it is chosen then.');
  const before = lines.size;
  const found = alikeTo(drawing, lines, likenessOf(preferences.getState().alike));
  withTool(bench);
  bench.choose(found);
  const more = found.length - before;
  bench.tell(more > 0 ? `${more} more ${more === 1 ? 'line is' : 'lines are'} chosen.` : 'No other line is like that.');
}

/** Commits what is done to the chosen lines; without any, says what to do. */
function toChosen(bench: Bench, make: (ids: ReadonlySet<string>) => Edit, nothing: string): void {
  const { lines } = bench.getState();
  if (lines.size === 0) return bench.tell('Choose lines first.');
  bench.commit(make(lines), null, nothing);
}

export const order = (bench: Bench, move: OrderMove): void =>
  toChosen(
    bench,
    (ids) => moveInOrder(bench.getState().drawing, ids, move, bench.getState().within),
    'They lie there already.',
  );

export function group(bench: Bench): void {
  const { drawing, lines, within } = bench.getState();
  const sheets = new Set([...lines].map((id) => findLine(drawing, id)?.sheet.id));
  if (sheets.size > 1) return bench.tell('A group lies on one sheet. Move the lines to one sheet first.');
  if (lines.size === 1) return bench.tell('Choose two lines or more to group them.');
  toChosen(bench, (ids) => groupLines(drawing, ids, nanoid(10), within), 'Choose lines first.');
}

export const ungroup = (bench: Bench): void =>
  toChosen(
    bench,
    (ids) => ungroupLines(bench.getState().drawing, ids, bench.getState().within),
    'What is chosen is in no group.',
  );

export function duplicate(bench: Bench): void {
  const { drawing, lines, view, within } = bench.getState();
  if (lines.size === 0) return bench.tell('Choose lines first.');
  const off = 14 / view.scale;
  const { edit, ids } = copiesOf(drawing, lines, { x: off, y: off }, () => nanoid(10), within);
  if (bench.commit(edit)) bench.choose(ids);
}

export function toSheet(bench: Bench, sheet: string): void {
  toChosen(bench, (ids) => moveToSheet(bench.getState().drawing, ids, sheet), 'They are on that sheet already.');
}

/** Joins the nearest ends of two chosen lines, or closes the one that is chosen. */
export function joinChosen(bench: Bench): void {
  const { drawing, lines } = bench.getState();
  const ends = [...lines].flatMap((id): { end: End; at: { x: number; y: number } }[] => {
    const line = findLine(drawing, id)?.line;
    return (line?.runs ?? []).flatMap((run, r) =>
      run.closed || run.nodes.length < 2
        ? []
        : [true, false].map((atStart) => {
            const end = { line: id, run: r, atStart };
            return { end, at: towards(run, end).at(-1)!.point };
          }),
    );
  });
  if (ends.length < 2 || lines.size > 2)
    return bench.tell('Choose two open lines to join their nearest ends, or one to close it.');
  let best: { a: End; b: End; d: number } | null = null;
  for (const [i, a] of ends.entries())
    for (const b of ends.slice(i + 1)) {
      const isOne = a.end.line === b.end.line;
      if (isOne !== (lines.size === 1)) continue;
      const d = distance(a.at, b.at);
      if (!best || d < best.d) best = { a: a.end, b: b.end, d };
    }
  const nothing = 'These ends cannot be joined.';
  if (!best) return bench.tell(nothing);
  bench.commit(joinEnds(drawing, best.a, best.b), [best.a.line], nothing);
}

/** The lines that come with one when it is chosen from a list. */
export function chooseWithGroup(bench: Bench, id: string, add: boolean): void {
  const { drawing, lines, within } = bench.getState();
  const all = withGroup(drawing, id, within);
  withTool(bench);
  bench.choose(add ? [...lines, ...all] : all);
}

/** New lines come to lie behind the lowest of the chosen lines, until that is ended. */
export function drawBehind(bench: Bench): void {
  const { drawing, lines, tool } = bench.getState();
  const lowest = allLines(drawing).find((l) => lines.has(l.id));
  if (!lowest) return;
  const draws = tool === 'pen' || tool === 'pencil' || tool === 'shape';
  bench.setState({ behind: lowest.id, into: null, tool: draws ? tool : 'pen' });
}

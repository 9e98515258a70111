import { edit, type Edit } from '../change/edit';
import { isGroup, isLine, isPart } from '../drawing/items';
import { lineLength } from '../drawing/run';
import type { Drawing, Item, Line, Sheet } from '../drawing/schema';
import { distance, type Point } from '../geometry/point';
import { isPlainStroke } from '../ink/body';

/** A line with the sheet that is its part. */
export type Drawn = { readonly line: Line; readonly sheet: string };
/** Something that appears at once, after the lines of its part: a fill, a flat, a picture. */
export type Coloured = { readonly id: string; readonly sheet: string };
/** What appears, one after the other. */
export type Appearing = ({ readonly kind: 'line' } & Drawn) | ({ readonly kind: 'colour' } & Coloured);

/** Whether a stroke of it is drawn. */
const isDrawn = (line: Line): boolean => line.style.width > 0 || !isPlainStroke(line);

/** The lines of the sheets that are seen, in the order in which they appear: as it was set, and else from the bottom of the stack. */
export function drawnLines(d: Drawing): Drawn[] {
  const all: Drawn[] = d.sheets
    .filter((s) => s.visible)
    .flatMap((s) =>
      linesWithin(s.items)
        .filter(isDrawn)
        .map((line) => ({ line, sheet: s.id })),
    );
  if (!d.order) return all;
  const places = new Map(d.order.map((id, i) => [id, i]));
  const isPlaced = (x: Drawn): boolean => places.has(x.line.id);
  const placed = all.filter(isPlaced).sort((a, b) => places.get(a.line.id)! - places.get(b.line.id)!);
  // What came since is drawn after what lies below it of its part.
  const since = new Map<Drawn | null, Drawn[]>();
  let below: Drawn | null = null;
  for (const x of all) {
    if (below?.sheet !== x.sheet) below = null;
    if (isPlaced(x)) below = x;
    else if (!since.get(below)?.push(x)) since.set(below, [x]);
  }
  return [...placed.flatMap((x) => [x, ...(since.get(x) ?? [])]), ...(since.get(null) ?? [])];
}

const linesWithin = (items: readonly Item[]): Line[] =>
  items.flatMap((item) => (isLine(item) ? [item] : isGroup(item) ? linesWithin(item.items) : []));

/** All that appears: lines in their order, the colours of a part when its last line is drawn, and what has no lines at the end. */
export function appearing(d: Drawing): Appearing[] {
  const lines = drawnLines(d);
  const last = new Map(lines.map(({ sheet }, i) => [sheet, i]));
  const sheets = new Map(d.sheets.map((s) => [s.id, s]));
  const coloursOf = (s: Sheet): Appearing[] => colouredIn(s.items).map((id) => ({ kind: 'colour', id, sheet: s.id }));
  return [
    ...lines.flatMap((x, i): Appearing[] => [
      { kind: 'line', ...x },
      ...(last.get(x.sheet) === i && isPlainPart(sheets.get(x.sheet)!) ? coloursOf(sheets.get(x.sheet)!) : []),
    ]),
    ...d.sheets.filter((s) => s.visible && !(last.has(s.id) && isPlainPart(s))).flatMap(coloursOf),
  ];
}

/** Whether a sheet has lines of its own, after which its colours appear; one of flats alone comes after all lines. */
const isPlainPart = (s: Pick<Sheet, 'items'>): boolean => s.items.length > 0 && isPart(s);

const colouredIn = (items: readonly Item[]): string[] =>
  items.flatMap((item) => (isGroup(item) ? colouredIn(item.items) : isLine(item) && !item.style.fill ? [] : [item.id]));

/** The order of lines set by their ids; none: as they lie. */
export function setOrder(d: Drawing, ids: readonly string[] | null, label: string): Edit {
  const [before, after] = [d.order ?? [], ids ?? []];
  const isSame = before.length === after.length && before.every((id, i) => id === after[i]);
  return edit(
    label,
    isSame ? [] : { step: 'setDrawing', before: { order: [...before] }, after: { order: [...after] } },
  );
}

/** Where a line's pen is set down, and where it is lifted. */
export const startOf = ({ runs }: Pick<Line, 'runs'>): Point => runs[0].nodes[0].point;
export function endOf({ runs }: Pick<Line, 'runs'>): Point {
  const { nodes, closed } = runs.at(-1)!;
  return closed ? nodes[0].point : nodes.at(-1)!.point;
}

/** How far a pen goes: along the lines, and lifted from one to the next; page units. */
export function penWays(lines: readonly Drawn[]): { drawn: number; lifted: number } {
  const drawn = lines.reduce((sum, x) => sum + lineLength(x.line), 0);
  const lifted = lines.reduce(
    (sum, x, i) => sum + (i > 0 ? distance(endOf(lines[i - 1].line), startOf(x.line)) : 0),
    0,
  );
  return { drawn, lifted };
}

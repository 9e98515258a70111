import { middleOfBox } from '@/core/geometry/box';
import { subtract } from '@/core/geometry/point';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { readSvg, writeSvg, type Drawing, type Point } from '@/core';
import { counted, edit } from '@/core/change/edit';
import { removeLines } from '@/core/edits/lines';
import { freshItems, movedItem } from '@/core/edits/transform';
import { sheetOf } from '@/core/drawing/find';
import { itemsSchema, type Item } from '@/core/drawing/item';
import { filterLines, linesIn } from '@/core/drawing/items';
import { SCHEMA_VERSION } from '@/core/drawing/schema';
import { upgradedItems } from '@/core/drawing/upgrade';
import { skeletonBoxOf } from '@/core/drawing/run';
import { wholeItemsOf } from '@/core/drawing/whole';
import { sheetToDraw } from './sheetToDraw';
import type { Bench } from '../state/store';

/** What was copied last, in full: an SVG has no kinds of nodes and no roundings. It counts while its SVG is on the clipboard. */
const KEPT = 'yellow-quill-copied';
const keptSchema = z.object({
  svg: z.string(),
  schema: z.number().int().default(1),
  /** What was copied; the first programs had nothing but lines. */
  items: z.array(z.unknown()).optional(),
  lines: z.array(z.unknown()).optional(),
});
const MOST_LINES = 20_000;

/** The chosen lines, and the groups that they fill, the lowest first. */
function chosenItems(bench: Bench): Item[] {
  const { drawing, lines, within } = bench.getState();
  return wholeItemsOf(drawing, lines, within).map((f) => f.item);
}

/** The chosen lines as an SVG for the clipboard; null when none is chosen. Kept in full for our own drawings. */
export function copied(bench: Bench): string | null {
  const items = chosenItems(bench);
  if (items.length === 0) return null;
  const { drawing, lines } = bench.getState();
  const only: Drawing = {
    ...drawing,
    references: [],
    sheets: drawing.sheets.map((s) => ({ ...s, visible: true, items: filterLines(s.items, (l) => lines.has(l.id)) })),
  };
  const svg = writeSvg(only, { scope: 'drawing' });
  try {
    localStorage.setItem(KEPT, JSON.stringify({ svg, schema: SCHEMA_VERSION, items }));
  } catch {
    // Without room for it the SVG alone has to do.
  }
  return svg;
}

export function cut(bench: Bench): string | null {
  const svg = copied(bench);
  const { drawing, lines } = bench.getState();
  if (svg) bench.commit(removeLines(drawing, lines, 'Cut lines'));
  return svg;
}

/** The items that a text stands for: those copied here, or else those of an SVG. */
function itemsIn(text: string): { items: readonly Item[]; dropped: string[] } {
  try {
    const kept = keptSchema.safeParse(JSON.parse(localStorage.getItem(KEPT) ?? 'null'));
    // Line ends may have been changed on their way through the system.
    const same = (a: string, b: string): boolean => a.replace(/\s+/g, '') === b.replace(/\s+/g, '');
    if (kept.success && same(kept.data.svg, text)) {
      const { items = kept.data.lines ?? [], schema } = kept.data;
      return { items: itemsSchema.parse(upgradedItems(items, schema)), dropped: [] };
    }
  } catch {
    // What is kept cannot be read: the SVG on the clipboard is there still.
  }
  const { drawing, dropped } = readSvg(text);
  return { items: drawing.sheets.flatMap((s) => s.items), dropped: dropped.map((d) => d.what) };
}

export const looksLikeSvg = (text: string): boolean => /<svg[\s>]/i.test(text.slice(0, 4000));

/** Lays the lines of an SVG text on the sheet in hand: where they were, or with their middle at `at`. */
export function paste(bench: Bench, text: string, at: Point | null): void {
  const sheet = sheetToDraw(bench, bench.getState().sheet, 'nothing is pasted there');
  if (!sheet) return;
  let found: ReturnType<typeof itemsIn>;
  try {
    found = itemsIn(text);
  } catch (error) {
    return bench.tell(`This cannot be pasted: ${(error as Error).message}.`, undefined, 'warning');
  }
  const lines = linesIn(found.items);
  if (lines.length === 0) return bench.tell('There is no line in what was copied.', undefined, 'warning');
  if (lines.length > MOST_LINES)
    return bench.tell(`No more than ${MOST_LINES} lines can be pasted at once.`, undefined, 'warning');
  const box = skeletonBoxOf(lines);
  const by = at ? subtract(at, middleOfBox(box)) : { x: 0, y: 0 };
  const items = freshItems(found.items, () => nanoid(10)).map((item) => movedItem(item, by));
  const index = sheetOf(bench.getState().drawing, sheet.id)!.items.length;
  bench.commit(
    edit(
      counted('Paste', lines.length, 'line'),
      items.map((item, i) => ({ step: 'insertItem' as const, at: { sheet: sheet.id, index: index + i }, item })),
    ),
  );
  bench.choose(linesIn(items).map((l) => l.id));
  if (found.dropped.length > 0) bench.tell(`Pasted without what cannot be kept: ${found.dropped.join(', ')}.`);
}

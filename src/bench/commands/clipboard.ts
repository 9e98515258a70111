import { middleOfBox } from '@/core/geometry/box';
import { subtract } from '@/core/geometry/point';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { writeSvg, type Drawing, type Point } from '@/core';
import { broughtPaints, type Paints } from '@/core/edits/broughtPaints';
import { palettesShape } from '@/core/drawing/paint';
import type { PictureBytes } from '@/core/formats/svg/pictures';
import { sendPicture } from '../state/api';
import { forgetLastSeen } from '../state/lastSeen';
import { readingSvg } from '../state/readingSvg';
import { counted, edit } from '@/core/change/edit';
import { removeLines } from '@/core/edits/lines';
import { freshItems, movedItem } from '@/core/edits/transform';
import { sheetOf } from '@/core/drawing/find';
import { itemsSchema, type Item } from '@/core/drawing/item';
import { filterLines, linesIn, withoutPictures } from '@/core/drawing/items';
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
  ...palettesShape,
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
  const { palette, gradients } = drawing;
  keepInFull(JSON.stringify({ svg, schema: SCHEMA_VERSION, items, palette, gradients }));
  return svg;
}

/** What was copied goes before pictures of pages. Without room for it even so, the SVG alone has to do. */
function keepInFull(text: string): void {
  for (const makeRoom of [() => undefined, forgetLastSeen])
    try {
      makeRoom();
      return localStorage.setItem(KEPT, text);
    } catch {
      // There is no room yet, or no store.
    }
}

export function cut(bench: Bench): string | null {
  const svg = copied(bench);
  const { drawing, lines } = bench.getState();
  if (svg) bench.commit(removeLines(drawing, lines, 'Cut lines'));
  return svg;
}

type Found = {
  items: readonly Item[];
  paints: Paints;
  pictures: readonly PictureBytes[];
  dropped: string[];
  why?: string;
};

/** What was copied here and is on the clipboard still; null for anything else. */
function keptItems(text: string): Found | null {
  try {
    const kept = keptSchema.safeParse(JSON.parse(localStorage.getItem(KEPT) ?? 'null'));
    // Line ends may have been changed on their way through the system.
    const same = (a: string, b: string): boolean => a.replace(/\s+/g, '') === b.replace(/\s+/g, '');
    if (!kept.success || !same(kept.data.svg, text)) return null;
    const { items = kept.data.lines ?? [], schema, ...paints } = kept.data;
    return { items: itemsSchema.parse(upgradedItems(items, schema)), paints, pictures: [], dropped: [] };
  } catch {
    // What is kept cannot be read: the SVG on the clipboard is there still.
    return null;
  }
}

/** The items that a text stands for: those copied here, or else those of an SVG. */
async function itemsIn(text: string): Promise<Found> {
  const kept = keptItems(text);
  if (kept) return kept;
  const { drawing, dropped, pictures } = await readingSvg(text);
  const items = drawing.sheets.flatMap((s) => s.items);
  return { items, paints: drawing, pictures, dropped: dropped.map((d) => d.what), why: dropped[0]?.why };
}

/** Sends the pictures that came along; gives the items without those that could not be kept. */
async function withPictures(bench: Bench, { items, pictures, dropped }: Found): Promise<readonly Item[]> {
  const lost = new Set<string>();
  for (const { hash, bytes, mime } of pictures) {
    try {
      await sendPicture(bench.getState().id, new Blob([bytes as BlobPart], { type: mime }), 'pasted picture');
    } catch {
      lost.add(hash);
    }
  }
  if (lost.size === 0) return items;
  dropped.push('pictures');
  return withoutPictures(items, lost);
}

export const looksLikeSvg = (text: string): boolean => /<svg[\s>]/i.test(text.slice(0, 4000));

/** Lays what is in an SVG text on the sheet in hand: where it was, or with its middle at `at`. */
export async function paste(bench: Bench, text: string, at: Point | null): Promise<void> {
  if (!sheetToPaste(bench)) return;
  let found: Found;
  try {
    found = await itemsIn(text);
  } catch (error) {
    return bench.tell(`This cannot be pasted: ${(error as Error).message}.`, undefined, 'warning');
  }
  const count = linesIn(found.items).length;
  if (found.items.length === 0) {
    const why = found.why ? `Nothing of this can be pasted. ${found.why}` : 'There is no line in what was copied.';
    return bench.tell(why, undefined, 'warning');
  }
  if (count > MOST_LINES)
    return bench.tell(`No more than ${MOST_LINES} lines can be pasted at once.`, undefined, 'warning');
  const sent = await withPictures(bench, found);
  // The sheet in hand, and whether it takes anything, may be another by now.
  const sheet = sheetToPaste(bench);
  if (sheet) lay(bench, sheet.id, sent, found.paints, at);
  if (sheet && found.dropped.length > 0) bench.tell(`Pasted without what cannot be kept: ${found.dropped.join(', ')}.`);
}

const sheetToPaste = (bench: Bench) => sheetToDraw(bench, bench.getState().sheet, 'nothing is pasted there');

function lay(bench: Bench, sheet: string, found: readonly Item[], paints: Paints, at: Point | null): void {
  const { drawing } = bench.getState();
  const lines = linesIn(found);
  const by = at && lines.length > 0 ? subtract(at, middleOfBox(skeletonBoxOf(lines))) : { x: 0, y: 0 };
  const own = broughtPaints(drawing, found, paints, () => nanoid(10));
  const items = freshItems(own.items, () => nanoid(10)).map((item) => movedItem(item, by));
  const index = sheetOf(drawing, sheet)!.items.length;
  bench.commit(
    edit(counted('Paste', Math.max(1, lines.length), 'line'), [
      ...own.steps,
      ...items.map((item, i) => ({ step: 'insertItem' as const, at: { sheet, index: index + i }, item })),
    ]),
  );
  bench.choose(linesIn(items).map((l) => l.id));
}

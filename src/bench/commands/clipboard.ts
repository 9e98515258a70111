import { nanoid } from 'nanoid';
import { writeSvg, type Drawing, type Point } from '@/core';
import { LONG_TEXT } from '@/core/change/changeText';
import { counted, edit } from '@/core/change/edit';
import { sheetOf } from '@/core/drawing/find';
import type { Item } from '@/core/drawing/item';
import { filterLines, linesIn, withoutPictures } from '@/core/drawing/items';
import { wholeItemsOf } from '@/core/drawing/whole';
import { broughtPaints, type Paints } from '@/core/edits/broughtPaints';
import { removeLines } from '@/core/edits/lines';
import {
  isSameText,
  keptClipping,
  keptInFull,
  laidClipping,
  paintsOf,
  type Clipping,
} from '@/core/formats/keptClipping';
import { sendPicture } from '../state/api';
import { forgetLastSeen } from '../state/lastSeen';
import { readingClipping } from '../state/readingClipping';
import type { Bench } from '../state/store';
import { sheetToDraw } from './sheetToDraw';

/** What was copied last, in full. It counts while its SVG is on the clipboard. */
const KEPT = 'yellow-quill-copied';
const MOST_LINES = 20_000;

/** What was copied last in this page, as it was: it need not be read to be pasted. */
let atHand: { svg: string; items: readonly Item[]; paints: Paints } | null = null;

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
  keepInFull(keptInFull(svg, items, drawing));
  atHand = { svg, items, paints: paintsOf(drawing) };
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

/** What was kept in full; null where this browser keeps nothing. */
function keptText(): string | null {
  try {
    return localStorage.getItem(KEPT);
  } catch {
    return null;
  }
}

/**
 * What a text on the clipboard stands for: what was copied in this page, or a few items that were in this browser, are there
 * at once. Rejects with words.
 */
async function clippingIn(text: string, at: Point | null): Promise<Clipping> {
  if (atHand && isSameText(atHand.svg, text)) {
    const { items, paints } = atHand;
    return laidClipping({ items, paints, pictures: [], dropped: [] }, at, () => nanoid(10));
  }
  const kept = keptText();
  const areFew = kept !== null && Math.max(kept.length, text.length) <= LONG_TEXT;
  const few = areFew ? keptClipping(text, kept) : null;
  return few ? laidClipping(few, at, () => nanoid(10)) : readingClipping(text, kept, at);
}

/** Sends the pictures that came along; gives the items without those that could not be kept. */
async function withPictures(bench: Bench, { items, pictures, dropped }: Clipping): Promise<readonly Item[]> {
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
  let found: Clipping;
  try {
    found = await clippingIn(text, at);
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
  if (sheet) lay(bench, sheet.id, sent, found.paints);
  if (sheet && found.dropped.length > 0) bench.tell(`Pasted without what cannot be kept: ${found.dropped.join(', ')}.`);
}

const sheetToPaste = (bench: Bench) => sheetToDraw(bench, bench.getState().sheet, 'nothing is pasted there');

function lay(bench: Bench, sheet: string, found: readonly Item[], paints: Paints): void {
  const { drawing } = bench.getState();
  const { items, steps } = broughtPaints(drawing, found, paints, () => nanoid(10));
  const index = sheetOf(drawing, sheet)!.items.length;
  const lines = linesIn(items).map((l) => l.id);
  bench.commit(
    edit(counted('Paste', Math.max(1, lines.length), 'line'), [
      ...steps,
      ...items.map((item, i) => ({ step: 'insertItem' as const, at: { sheet, index: index + i }, item })),
    ]),
    lines,
  );
}

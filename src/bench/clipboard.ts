import { nanoid } from 'nanoid';
import { z } from 'zod';
import { readSvg, writeSvg, type Drawing, type Line, type Point } from '@/core';
import { edit } from '@/core/change/edit';
import { movedRuns, removeLines } from '@/core/change/lineEdits';
import { sheetOf } from '@/core/drawing/find';
import { lineSchema, SCHEMA_VERSION } from '@/core/drawing/schema';
import { upgradedLine } from '@/core/drawing/upgrade';
import { skeletonBox } from '@/core/drawing/run';
import { emptyBox, joinBoxes } from '@/core/geometry/box';
import { sheetToDraw } from './sheetToDraw';
import type { Bench } from './state/store';

/** What was copied last, in full: an SVG has no kinds of nodes and no roundings. It counts while its SVG is on the clipboard. */
const KEPT = 'yellow-quill-copied';
const keptSchema = z.object({ svg: z.string(), schema: z.number().int().default(1), lines: z.array(z.unknown()) });
const linesSchema = z.array(lineSchema).max(20_000);

/** The chosen lines, the lowest first. */
function chosenLines(bench: Bench): Line[] {
  const { drawing, lines } = bench.getState();
  return drawing.sheets.flatMap((s) => s.lines.filter((l) => lines.has(l.id)));
}

/** The chosen lines as an SVG for the clipboard; null when none is chosen. Kept in full for our own drawings. */
export function copied(bench: Bench): string | null {
  const lines = chosenLines(bench);
  if (lines.length === 0) return null;
  const { drawing } = bench.getState();
  const only: Drawing = {
    ...drawing,
    references: [],
    sheets: drawing.sheets.map((s) => ({ ...s, visible: true, lines: s.lines.filter((l) => lines.includes(l)) })),
  };
  const svg = writeSvg(only, { scope: 'drawing' });
  try {
    localStorage.setItem(KEPT, JSON.stringify({ svg, schema: SCHEMA_VERSION, lines }));
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

/** The lines that a text stands for: those copied here, or else those of an SVG. */
function linesOf(text: string): { lines: readonly Line[]; dropped: string[] } {
  try {
    const kept = keptSchema.safeParse(JSON.parse(localStorage.getItem(KEPT) ?? 'null'));
    // Line ends may have been changed on their way through the system.
    const same = (a: string, b: string): boolean => a.replace(/\s+/g, '') === b.replace(/\s+/g, '');
    if (kept.success && same(kept.data.svg, text)) {
      const lines = kept.data.lines.map((l) => upgradedLine(l, kept.data.schema));
      return { lines: linesSchema.parse(lines) as Line[], dropped: [] };
    }
  } catch {
    // What is kept cannot be read: the SVG on the clipboard is there still.
  }
  const { drawing, dropped } = readSvg(text);
  return { lines: drawing.sheets.flatMap((s) => s.lines), dropped: dropped.map((d) => d.what) };
}

export const looksLikeSvg = (text: string): boolean => /<svg[\s>]/i.test(text.slice(0, 4000));

/** Lays the lines of an SVG text on the sheet in hand: where they were, or with their middle at `at`. */
export function paste(bench: Bench, text: string, at: Point | null): void {
  const sheet = sheetToDraw(bench, bench.getState().sheet, 'nothing is pasted there');
  if (!sheet) return;
  let found: ReturnType<typeof linesOf>;
  try {
    found = linesOf(text);
  } catch (error) {
    return bench.tell(`This cannot be pasted: ${(error as Error).message}.`, undefined, 'warning');
  }
  if (found.lines.length === 0) return bench.tell('There is no line in what was copied.', undefined, 'warning');
  const box = found.lines.reduce((b, l) => joinBoxes(b, skeletonBox(l)), emptyBox);
  const by = at ? { x: at.x - (box.minX + box.maxX) / 2, y: at.y - (box.minY + box.maxY) / 2 } : { x: 0, y: 0 };
  const groups = new Map<string, string>();
  const fresh = (g: string): string => groups.get(g) ?? groups.set(g, nanoid(10)).get(g)!;
  const lines = found.lines.map((l): Line => ({
    ...l,
    id: nanoid(10),
    runs: movedRuns(l.runs, by),
    ...(l.groups ? { groups: l.groups.map(fresh) } : {}),
  }));
  const index = sheetOf(bench.getState().drawing, sheet.id)!.lines.length;
  bench.commit(
    edit(
      `Paste ${lines.length === 1 ? 'line' : `${lines.length} lines`}`,
      lines.map((line, i) => ({ step: 'insertLine' as const, sheet: sheet.id, index: index + i, line })),
    ),
  );
  bench.choose(lines.map((l) => l.id));
  if (found.dropped.length > 0) bench.tell(`Pasted without what cannot be kept: ${found.dropped.join(', ')}.`);
}

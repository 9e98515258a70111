import { transfer } from 'comlink';
import { applyChange, type Change, type Cubic, type Drawing, type GrayImage, type Line, type Run } from '@/core';
import type { SettleFigures } from '@/core/edits/settle';
import { settledLines } from '@/core/edits/settleLines';
import { CoveredInk, type CoverFigures, type OpenPatch } from '@/core/check/coveredInk';
import { findingNotes, type Share } from '@/core/check/findNotes';
import { type LineDistance } from '@/core/check/lineDistance';
import { unpacked } from '@/core/formats/packed';
import { referenceBeneath } from '@/core/drawing/beneath';
import { MeasuredLines, type DistanceSums } from '@/core/check/measuredLines';
import { noteLimits, type Note } from '@/core/check/note';
import type { Edit } from '@/core/change/edit';
import { fixing, type LeftNote } from '@/core/edits/fix/fixNote';
import { inkJudge } from '@/core/edits/fix/inkJudge';
import { findLine } from '@/core/drawing/find';
import type { Mark } from '@/core/drawing/schema';
import { inGrey, type Picture } from '@/core/colour/picture';
import { prepareWidths } from '@/core/assist/readWidths';
import { readMarks, type ReadFigures } from '@/core/assist/readMarks';
import { thinnedRun, type ThinOptions } from '@/core/drawing/thin';

/** What has been looked at. Kept here so that only what changed is sent and made anew. */
let drawing: Drawing | null = null;
const pictures = new Map<string, Picture>();
let lines = new MeasuredLines(pictures);
let ink = new CoveredInk(pictures);

/** What the bench was told last, by the places measured. */
let told = new Map<string, Float32Array>();
let finding: { drawing: Drawing; steps: Generator<void, Note[]> } | null = null;
/** What notes are being put right for, by its number: several can be asked for at once. */
const fixes = new Map<number, Generator<void, Fixed>>();
let lastFix = 0;

/** What puts notes right, and those that it does not. */
export type Fixed = { edit: Edit; left: LeftNote[] };
/** A line in another shape. */
export type Reshaped = { id: string; runs: readonly Run[] };
/** A line with the widths of its ink. */
export type Widened = { id: string; marks: readonly Mark[] };

/** A part of the work: what of it is news; with all sums when it is done. */
export type Measured = { fresh: LineDistance[]; gone: string[]; sums: DistanceSums | null; done: boolean };

/** What the lines under a hand come to. */
export type Moved = { lines: LineDistance[]; sums: DistanceSums | null; covers: CoverFigures[] | null };

/** Where a reference's ink has no line, and a wash over it. */
export type Uncovered = { reference: string; patches: readonly OpenPatch[]; wash: ImageBitmap | null };

const WASH = [188, 72, 44, 150] as const;

/** Works on for so long, ms: what takes longer is asked for again, and what matters more comes between. */
function workOn<T>(steps: Generator<void, T>, ms: number): IteratorResult<void, T> {
  const until = performance.now() + ms;
  for (;;) {
    const step = steps.next();
    if (step.done || performance.now() > until) return step;
  }
}

/** All that is asked of the checks. */
export const checks = {
  /** Begins with a drawing, packed or not. */
  load(next: Drawing | ArrayBuffer): void {
    drawing = next instanceof ArrayBuffer ? unpacked(new Uint8Array(next)) : next;
    told = new Map();
    lines = new MeasuredLines(pictures);
    ink = new CoveredInk(pictures);
  },

  change(change: Change): void {
    if (drawing) drawing = applyChange(drawing, change);
  },

  /** A reference's corrected picture in grey; null lets go of it. */
  picture(id: string, image: Picture | null): void {
    if (image) pictures.set(id, image);
    else pictures.delete(id);
  },

  /** Measures the lines that are seen for some ms; as a whole also those that were measured in part. */
  distances(reach: number, ms: number, whole = false): Measured {
    if (!drawing) return { fresh: [], gone: [], sums: null, done: true };
    const steps = whole ? lines.completing(drawing, reach) : lines.measuring(drawing, reach);
    const done = workOn(steps, ms).done === true;
    const all = lines.all(drawing, reach);
    const fresh = [...all.values()].filter((x) => told.get(x.id) !== x.places);
    const gone = done ? [...told.keys()].filter((id) => !all.has(id)) : [];
    for (const x of fresh) told.set(x.id, x.places);
    for (const id of gone) told.delete(id);
    return { fresh, gone, sums: done ? lines.sums(drawing, reach) : null, done };
  },

  sums: (reach: number): DistanceSums | null => drawing && lines.sums(drawing, reach),

  /** Counts for some ms which ink has a line; null when that is not all done. */
  covers(reach: number, ms: number): CoverFigures[] | null {
    if (!drawing) return [];
    return workOn(ink.counting(drawing, reach), ms).done ? ink.figures(drawing, reach) : null;
  },

  /** Lines as they are under the hand. */
  moved(changed: Line[], reach: number, wants: { distance: boolean; coverage: boolean }): Moved {
    if (!drawing) return { lines: [], sums: null, covers: null };
    const measured = wants.distance ? lines.moved(drawing, changed, reach) : [];
    return {
      lines: measured,
      sums: wants.distance ? lines.sums(drawing, reach, measured) : null,
      covers: wants.coverage ? ink.moved(drawing, changed, reach) : null,
    };
  },

  uncovered(reach: number): Uncovered[] {
    const d = drawing;
    if (!d) return [];
    const found = d.references.flatMap((r): Uncovered[] => {
      const open = ink.untraced(d, r.id, reach);
      return open ? [{ reference: r.id, patches: open.patches, wash: washOf(open.image) }] : [];
    });
    return transfer(
      found,
      found.flatMap((f) => f.wash ?? []),
    );
  },

  /** Few curves along an open piece of a reference's outline, page units; null where it is none any more. */
  outline: (reference: string, key: string, reach: number): Cubic[] | null =>
    drawing && ink.outline(drawing, reference, key, reach),

  /** Looks for notes in a share of the lines for some ms; null when that is not all done. What is found is to be gathered. */
  notes(ms: number, share?: Share): Note[] | null {
    if (!drawing) return [];
    if (finding?.drawing !== drawing) finding = { drawing, steps: findingNotes(drawing, noteLimits, share) };
    const step = workOn(finding.steps, ms);
    if (!step.done) return null;
    finding = null;
    return step.value;
  },

  /** Begins to put notes right in the drawing as it is, no line further from its ink; gives the number to go on by. */
  beginFix(notes: Note[], label: string, reach: number): number {
    if (drawing) fixes.set(++lastFix, fixing(drawing, notes, label, noteLimits, inkJudge(drawing, pictures, reach)));
    return lastFix;
  },

  /** Goes on with it for some ms; null when that is not all done. */
  goOnFixing(fix: number, ms: number): Fixed | null {
    const steps = fixes.get(fix);
    if (!steps) throw new Error('nothing is being put right');
    const step = workOn(steps, ms);
    if (step.done) fixes.delete(fix);
    return step.done ? step.value : null;
  },

  /** Lets go of what nobody waits for any more. */
  dropFix: (fix: number): void => void fixes.delete(fix),

  /** Lines by their ids, settled onto the ink beneath them, and what that brings put right; only those that move. */
  settle(ids: string[], nodes: string[], figures: SettleFigures): Reshaped[] {
    if (!drawing) return [];
    const byLine = new Map<string, Set<string>>();
    for (const key of nodes) {
      const cut = key.lastIndexOf(':', key.lastIndexOf(':') - 1);
      const line = key.slice(0, cut);
      byLine.set(line, (byLine.get(line) ?? new Set()).add(key.slice(cut + 1)));
    }
    const settled = settledLines(drawing, ids, byLine, pictures, figures);
    return Array.from(settled, ([id, runs]) => ({ id, runs }));
  },

  /** Looks through the pictures ahead of the first line that is read from them. */
  prepareWidths(): void {
    for (const picture of pictures.values()) prepareWidths(inGrey(picture));
  },

  /** Lines by their ids, with the widths of the ink beneath them; only those that have any. */
  readWidths(ids: string[], figures: ReadFigures): Widened[] {
    const d = drawing;
    if (!d) return [];
    return ids.flatMap((id) => {
      const line = findLine(d, id)?.line;
      const r = line && referenceBeneath(d, line);
      const picture = r && pictures.get(r.id);
      const marks = line && r && picture ? readMarks(line, r, inGrey(picture), figures) : [];
      return marks.length > 0 ? [{ id, marks }] : [];
    });
  },

  /** Lines by their ids, with fewer nodes; only those that come out otherwise. */
  thin(ids: string[], options: ThinOptions): Reshaped[] {
    const d = drawing;
    if (!d) return [];
    return ids.flatMap((id) => {
      const line = findLine(d, id)?.line;
      if (!line) return [];
      const runs = line.runs.map((run) => thinnedRun(run, options));
      return runs.every((run, i) => run === line.runs[i]) ? [] : [{ id, runs }];
    });
  },
};

/** Untraced ink as a bitmap to be laid over the page. */
function washOf({ width, height, data }: GrayImage): ImageBitmap | null {
  if (typeof OffscreenCanvas === 'undefined') return null;
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext('2d')!;
  const pixels = ctx.createImageData(width, height);
  const into = new Uint32Array(pixels.data.buffer);
  const colour = (WASH[3] << 24) | (WASH[2] << 16) | (WASH[1] << 8) | WASH[0];
  for (let i = 0; i < data.length; i++) if (data[i] === 0) into[i] = colour;
  ctx.putImageData(pixels, 0, 0);
  return canvas.transferToImageBitmap();
}

export type Checks = typeof checks;

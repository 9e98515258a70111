import { settle, type Cubic } from '../src/core';
import { applyChange } from '../src/core/change/apply';
import { findNotes } from '../src/core/check/findNotes';
import type { Note } from '../src/core/check/note';
import { linesOf } from '../src/core/drawing/items';
import { reshapeLines } from '../src/core/edits/lines';
import { settledLines } from '../src/core/edits/settleLines';
import type { CubicRun } from '../src/core/geometry/along';
import { seeded } from '../src/core/seeded';
import { disturbed } from '../src/core/test/disturbed';
import { distanceToCurves, walk } from '../src/core/test/strokes';
import { drawingOf } from './measureFix';
import type { Sketch } from './sketches';

/** How lines come to lie that were disturbed and settled. `near` is the share of their length within 1 px, 0…1. */
export type SettleFigures = { near: number; nearBefore: number; lines: number; furtherOnTheWhole: number; ms: number };

const NEAR = 1;
/** Marks shorter than this, px, are no lines: the disturbance is as large as they are. */
const LEAST = 40;

/** Moves every node of the true lines by `by` px any way, its handles with it, settles them, and looks how they lie. */
export function measureSettle({ image, lines, scale }: Sketch, by: number, reach: number, seed: number): SettleFigures {
  const random = seeded(seed);
  const f = { near: 0, nearBefore: 0, lines: 0, furtherOnTheWhole: 0, ms: 0 };
  let [length, lengthBefore] = [0, 0];
  for (const line of lines) {
    const truth = line.cubics.map((c) => c.map((p) => ({ x: p.x * scale, y: p.y * scale })) as Cubic);
    const start = { cubics: disturbed(truth, line.closed, by, random), closed: line.closed };
    const began = performance.now();
    const settled = settle(start, image, { reach, target: 'ink' });
    f.ms += performance.now() - began;
    const [before, after] = [start, settled].map((r) => walk(r.cubics, 2).map((p) => distanceToCurves(truth, p)));
    length += after.length;
    lengthBefore += before.length;
    f.near += after.filter((d) => d <= NEAR).length;
    f.nearBefore += before.filter((d) => d <= NEAR).length;
    if (2 * before.length < LEAST) continue;
    f.lines++;
    if (mean(after) > mean(before)) f.furtherOnTheWhole++;
  }
  f.near /= length;
  f.nearBefore /= lengthBefore;
  return f;
}

const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

/** How many notes of each kind there are before and after disturbed lines are settled together, and what is new. */
export function notesOfSettled(sketch: Sketch, by: number, reach: number, seed: number): Settled {
  const random = seeded(seed);
  const runs = sketch.lines.map((l): CubicRun => {
    const truth = l.cubics.map((c) => c.map((p) => ({ x: p.x * sketch.scale, y: p.y * sketch.scale })) as Cubic);
    return { cubics: disturbed(truth, l.closed, by, random), closed: l.closed };
  });
  const d = drawingOf(sketch.image, runs);
  const ids = linesOf(d.sheets[0]).map((l) => l.id);
  const pictures = new Map([[d.references[0].id, sketch.image]]);
  const settled = settledLines(d, ids, new Map(), pictures, { reach, strength: 1 });
  const after = applyChange(d, { id: 'settled', ...reshapeLines(d, settled, 'Settle') });
  const keyOf = (n: Note): string => `${n.kind} ${n.lines[0]} ${n.end?.atStart ?? ''}`;
  const had = new Set(findNotes(d).map(keyOf));
  const notes = findNotes(after);
  return { before: findNotes(d).length, after: notes.length, fresh: notes.map(keyOf).filter((k) => !had.has(k)) };
}

type Settled = { before: number; after: number; fresh: string[] };

import { applyChange } from '../change/apply';
import { noteLimits, type Note, type NoteLimits } from '../check/note';
import { notesBetween, withoutPairs } from '../check/pairNotes';
import { runFromCubics } from '../drawing/fromCubics';
import { linesOf } from '../drawing/items';
import { cubicsOf } from '../drawing/run';
import { emptyDrawing, firstStyle, plainPage, type Drawing } from '../drawing/schema';
import { fixAll } from '../edits/fix/fixNote';
import { restStays, type Judge } from '../edits/fix/judge';
import { distance, mix, type Point } from '../geometry/point';
import type { PulledRun } from './pullInk';

/** An end that lies within this share of the usual width of a line, and some px, was drawn to meet it. */
const NEAR = 0.6;
const AND_PX = 2;
const LEAST = 3;
const MOST = 24;
/** What is led on can come near to another line in turn. */
const ROUNDS = 3;

/**
 * Pulled runs with their ends on the runs that they meet in the ink: one that stops short is led on to it, one that
 * reaches a little beyond is cut there. Ends between which there is paper, as of hatching, stay apart. `isInk` tells
 * whether a place has ink. All of a run but what lies about its ends stays where it is.
 */
export function metEnds(runs: readonly PulledRun[], isInk: (p: Point) => boolean): PulledRun[] {
  const widths = runs.map((r) => r.width ?? 0).sort((a, b) => a - b);
  const reach = Math.max(LEAST, Math.min(MOST, NEAR * (widths[widths.length >> 1] ?? 0) + AND_PX));
  const limits = { ...noteLimits, reach };
  const judge: Judge = (before, after, at) => restStays(before, after, at, 2 * reach);
  let d = drawingOf(runs);
  for (let round = 0; round < ROUNDS; round++) {
    const notes = endNotes(d, limits).filter((n) => n.to && isJoined(n.at, n.to, isInk));
    if (notes.length === 0) break;
    const { edit } = fixAll(d, notes, 'Meet', limits, judge);
    if (edit.steps.length === 0) break;
    d = applyChange(d, { id: `round ${round}`, ...edit });
  }
  const lines = linesOf(d.sheets[0]);
  return runs.map((run, i) => {
    const [now] = lines[i].runs;
    return now.nodes.length > 1 ? { ...run, cubics: cubicsOf(now), closed: now.closed } : run;
  });
}

function endNotes(d: Drawing, limits: NoteLimits): Note[] {
  const finding = notesBetween(linesOf(d.sheets[0]), limits);
  let step = finding.next();
  while (!step.done) step = finding.next();
  return withoutPairs(step.value).filter((n) => n.kind === 'gap' || n.kind === 'overhang');
}

/** Whether there is ink all the way between two places. */
function isJoined(a: Point, b: Point, isInk: (p: Point) => boolean): boolean {
  const steps = Math.max(1, Math.ceil(distance(a, b)));
  for (let i = 0; i <= steps; i++) if (!isInk(mix(a, b, i / steps))) return false;
  return true;
}

/** A drawing that only serves to look at the runs as lines. */
function drawingOf(runs: readonly PulledRun[]): Drawing {
  const page = plainPage({ width: 1, height: 1, unit: 'px', dpi: 96, ground: null });
  const empty = emptyDrawing(page, { id: 'pulled', name: 'Pulled', tag: '#000000' });
  const items = runs.map(({ cubics, closed }, i) => ({
    id: `${i}`,
    style: firstStyle,
    runs: [runFromCubics(cubics, closed)],
  }));
  return { ...empty, sheets: [{ ...empty.sheets[0], items }] };
}

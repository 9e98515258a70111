import { linesOf } from '../src/core/drawing/items';
import fitCurvePackage from 'fit-curve';
import type * as Paper from 'paper';
import type { Cubic } from '../src/core';
import { findNotes } from '../src/core/check/findNotes';
import { runFromCubics } from '../src/core/drawing/fromCubics';
import { thinnedRun } from '../src/core/drawing/thin';
import { cubicsOf } from '../src/core/drawing/run';
import { wanderingDrawing } from '../src/core/test/drawings';
import { distanceToCurves, stroke, strokeKinds, walk } from '../src/core/test/strokes';
import { hurriedRuns, measureFix, shortRuns } from '../demo/measureFix';
import { crossingScene } from '../demo/crossings';
import { measureWidths } from '../demo/measureWidths';
import { measureSettle } from '../demo/measureSettle';
import { pearSketch, snailSketch } from '../demo/sketches';
import { removal } from './removal';

const LINES = 200;
const TOLERANCE = 1;
const round = (v: number, digits = 2): number => Math.round(v * 10 ** digits) / 10 ** digits;

/** How few nodes thinning out leaves beside a package, how true settled lines are, and what the notes cost. */
export async function refining(): Promise<unknown> {
  return {
    thinning: await thinning(),
    removal: removal(),
    settling: await settling(),
    fixing: await fixing(),
    widthsAtCrossings: widthsAtCrossings(),
    notes: notes(),
  };
}

/** Lines of many nodes, thinned out by us and by a package within the same largest deviation. */
async function thinning(): Promise<unknown> {
  const { default: paper } = (await import('paper/dist/paper-core.js')) as unknown as { default: typeof Paper };
  paper.setup(new paper.Size(100, 100));
  const total = { lines: LINES, nodesBefore: 0, ours: 0, paperSimplify: 0, fewerOn: 0, asManyOn: 0, furthest: 0 };
  for (let i = 0; i < LINES; i++) {
    const { points } = stroke(strokeKinds[i % 5], 9000 + i, 6, 0.4);
    const many = fitCurvePackage(
      points.map((p) => [p.x, p.y]),
      0.8,
    ).map((c) => c.map(([x, y]) => ({ x, y })) as Cubic);
    const run = runFromCubics(many, false);
    const thin = cubicsOf(thinnedRun(run, { tolerance: TOLERANCE, smoothing: 0, extremes: false }));
    const allowed = deviation(many, thin);
    const theirs = fewestByPaper(paper, many, allowed);
    total.nodesBefore += many.length + 1;
    total.ours += thin.length + 1;
    total.paperSimplify += theirs + 1;
    total.furthest = Math.max(total.furthest, round(allowed));
    if (thin.length < theirs) total.fewerOn++;
    if (thin.length === theirs) total.asManyOn++;
  }
  return total;
}

const deviation = (a: readonly Cubic[], b: readonly Cubic[]): number =>
  Math.max(...walk(a, 2).map((p) => distanceToCurves(b, p)), ...walk(b, 2).map((p) => distanceToCurves(a, p)));

function fewestByPaper(paper: typeof Paper, many: readonly Cubic[], allowed: number): number {
  const path = new paper.Path();
  path.moveTo(new paper.Point(many[0][0]));
  for (const [, b, c, d] of many) path.cubicCurveTo(new paper.Point(b), new paper.Point(c), new paper.Point(d));
  let best = many.length;
  for (const tolerance of [0.05, 0.1, 0.2, 0.4, 0.7, 1, 1.5, 2, 3, 4, 6, 8, 12, 20]) {
    const copy = path.clone();
    copy.simplify(tolerance);
    const curves = copy.curves.map((c): Cubic => {
      const [a, b] = [c.point1, c.point2];
      return [a, a.add(c.handle1), b.add(c.handle2), b].map((p) => ({ x: p.x, y: p.y })) as Cubic;
    });
    copy.remove();
    if (curves.length < best && deviation(many, curves) <= allowed * 1.001) best = curves.length;
  }
  path.remove();
  return best;
}

async function settling(): Promise<unknown> {
  const found: Record<string, unknown> = {};
  // The pear at 2,000 px of height.
  for (const sketch of [await pearSketch(1410), await snailSketch()]) {
    const runs = [1, 2, 3].map((seed) => measureSettle(sketch, 6, 12, seed));
    found[sketch.name] = {
      within1px: runs.map((r) => round(r.near, 3)),
      within1pxBefore: runs.map((r) => round(r.nearBefore, 3)),
      linesFurtherOnTheWhole: runs.map((r) => r.furtherOnTheWhole),
      msPerLine: round(Math.min(...runs.map((r) => r.ms)) / sketch.lines.length, 1),
    };
  }
  return found;
}

/** *Fix all* on pulled ink and on hurried lines: gaps and overhangs put right, and lines that lie worse for it. */
async function fixing(): Promise<unknown> {
  const found: Record<string, unknown> = {};
  for (const sketch of [await pearSketch(), await snailSketch()]) {
    const [pulled, hurried] = [shortRuns(sketch, 2), hurriedRuns(sketch, 4)].map((runs) =>
      measureFix(sketch.image, runs),
    );
    found[sketch.name] = { pulled, hurried };
  }
  return found;
}

/** Widths read on 200 made-up crossings: the share of what is seen that is right, and of all that is another's. */
function widthsAtCrossings(): unknown {
  const f = { seen: 0, right: 0, length: 0, over: 0 };
  for (let seed = 1; seed <= 200; seed++) {
    const { image, cubics, width, toOthers } = crossingScene(seed);
    measureWidths(image, { cubics, closed: false }, width, toOthers, f);
  }
  return { right: round(f.right / f.seen, 4), over: round(f.over / f.length, 4) };
}

/** The first look at 2,000 lines, and the one after a line has changed. */
function notes(): unknown {
  const d = wanderingDrawing(2_000, 8, 3);
  const time = (drawing: typeof d): number => {
    const start = performance.now();
    findNotes(drawing);
    return round(performance.now() - start, 0);
  };
  const first = time(d);
  const [line, ...rest] = linesOf(d.sheets[0]);
  const moved = { ...line, runs: line.runs.map((r) => ({ ...r, nodes: r.nodes.slice(1) })) };
  const then = time({ ...d, sheets: [{ ...d.sheets[0], items: [moved, ...rest] }] });
  return { lines: 2_000, firstMs: first, afterAChangeMs: then };
}

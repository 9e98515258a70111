import { linesOf } from '../src/core/drawing/items';
import { chromium } from '@playwright/test';
import CanvasKitInit, { type CanvasKit, type Path } from 'canvaskit-wasm';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  nearestOnCubic,
  strokeOutline,
  type Cubic,
  type Drawing,
  type Line,
  type Point,
  type StrokeOptions,
} from '../src/core';
import { hullBox } from '../src/core/geometry/bounds';
import { evaluate } from '../src/core/geometry/cubic';
import { melted } from '../src/core/ink/melt';
import { scale } from '../src/core/geometry/point';
import { areaBetween, bodyBySweep, bodyOfOutlines } from '../src/core/test/bodyOracle';
import { randomCubics } from '../src/core/test/randomCubics';
import { closeDatabase } from '../src/server/database';
import { keepDrawing } from '../src/server/drawings';
import { launchOptions, Program } from '../e2e/program';
import { newPage } from './newPage';
import * as probe from './probe';
import * as scene from './scene';
import { summary } from './statistics';

const round = (v: number, digits = 2): number => Math.round(v * 10 ** digits) / 10 ** digits;
const widths = (k: number, w: number) =>
  [
    [{ at: 0, left: w, right: w }],
    [
      { at: 0, left: w, right: w },
      { at: 1, left: w / 3, right: w / 3 },
    ],
    [
      { at: 0, left: w / 2, right: w / 2 },
      { at: 0.4, left: w, right: w },
      { at: 1, left: w / 4, right: w / 4 },
    ],
  ][k];

/** Bodies of 300 seeded runs against the union of discs and quads: the share of the body that differs. */
export function bodies(): unknown {
  const off = randomCubics(11, 300).map(({ family, cubic }, i) => {
    const c = cubic.map((p) => scale(p, 0.2)) as Cubic;
    const marks = widths(Math.floor(i / 4) % 3, [1.5, 4, 10, 25][i % 4]);
    const run = { cubics: [c], closed: false };
    const outlines = strokeOutline(run, marks, { cap: 'round', join: 'round', tolerance: 0.004 });
    const { difference, area } = areaBetween(bodyBySweep(run, marks, 'round'), bodyOfOutlines(outlines));
    return { family, share: difference / area };
  });
  const shares = off.map((o) => o.share).sort((a, b) => a - b);
  return {
    runs: shares.length,
    under01PerCent: shares.filter((s) => s < 0.001).length,
    medianPerCent: round(100 * shares[shares.length >> 1], 4),
    worstPerCent: round(100 * shares.at(-1)!, 4),
    over: off.filter((o) => o.share >= 0.001).map((o) => o.family),
  };
}

/** Strokes of one width beside canvaskit's stroker: how far the edges lie apart, how many segments, how long. */
export async function beside(): Promise<unknown> {
  const ck = await CanvasKitInit();
  const all = randomCubics(21, 200).filter((r) => r.family !== 'tiny');
  let [ours, theirs, ourTime, theirTime] = [0, 0, 0, 0];
  const apart: number[] = [];
  const [furthest, ourEdge, theirEdge]: number[][] = [[], [], []];
  const options: StrokeOptions = { cap: 'round', join: 'round', tolerance: 0.02 };
  all.forEach(({ cubic }, i) => {
    const c = cubic.map((p) => scale(p, 0.2)) as Cubic;
    const w = [1, 3, 8][i % 3];
    const make = (): Cubic[][] => strokeOutline({ cubics: [c], closed: false }, widths(0, w), options);
    make();
    let begun = performance.now();
    const outlines = make();
    ourTime += performance.now() - begun;
    begun = performance.now();
    const stroked = stroke(ck, c, 2 * w);
    theirTime += performance.now() - begun;
    const { cubics, segments } = cubicsOf(ck, stroked);
    ours += outlines.flat().length;
    theirs += segments;
    const { difference } = areaBetween(bodyOfOutlines(outlines), bodyOfOutlines(cubics));
    // Their edge differs by this much on the whole: the area between the two, along the edge.
    apart.push(difference / perimeter(outlines));
    if (i % 4 !== 0) return;
    const [own, other] = [melted(outlines), melted(cubics)];
    const finer = melted(cubicsOf(ck, stroke(ck, c, 2 * w, FINER)).cubics);
    furthest.push(furthestApart(own, finer));
    ourEdge.push(offTrueEdge(own, c, w));
    theirEdge.push(offTrueEdge(other, c, w));
  });
  apart.sort((a, b) => a - b);
  return {
    strokes: all.length,
    meanEdgeApartPx: { median: round(apart[apart.length >> 1], 4), worst: round(apart.at(-1)!, 4) },
    furthestEdgePx: spread(furthest),
    furthestFromTrueEdgePx: { ours: spread(ourEdge), theirs: spread(theirEdge) },
    segments: { ours, theirs, ratio: round(ours / theirs) },
    msEach: { ours: round(ourTime / all.length, 3), theirs: round(theirTime / all.length, 3) },
  };
}

function spread(list: number[]): Record<'strokes' | 'median' | 'p95' | 'worst', number> {
  list.sort((a, b) => a - b);
  const at = (share: number): number => round(list[Math.floor(share * (list.length - 1))], 4);
  return { strokes: list.length, median: at(0.5), p95: at(0.95), worst: at(1) };
}

/** How far an edge of a stroke of one width is from where it should be: that far from the middle line. */
const offTrueEdge = (edge: Cubic[][], c: Cubic, half: number): number =>
  edge.flat().reduce((worst, k) => {
    const off = [0, 0.25, 0.5, 0.75].map((t) => Math.abs(nearestOnCubic(c, evaluate(k, t)).distance - half));
    return Math.max(worst, ...off);
  }, 0);

/** How finely canvaskit strokes: about as truly as we do, and so that its own error is well under what is looked for. */
const [ALIKE, FINER] = [8, 32];

function stroke(ck: CanvasKit, [a, b, c, d]: Cubic, width: number, precision = ALIKE): Path {
  const builder = new ck.PathBuilder();
  builder.moveTo(a.x, a.y);
  builder.cubicTo(b.x, b.y, c.x, c.y, d.x, d.y);
  const found = builder
    .detach()
    .makeStroked({ width, cap: ck.StrokeCap.Round, join: ck.StrokeJoin.Round, miter_limit: 4, precision });
  if (!found) throw new Error('there is no stroke');
  return found;
}

/** A path's quadratics and conics as cubics, and how many segments it has. */
function cubicsOf(ck: CanvasKit, path: Path): { cubics: Cubic[][]; segments: number } {
  const commands = path.toCmds();
  const cubics: Cubic[][] = [];
  let [segments, k] = [0, 0];
  let at: Point = { x: 0, y: 0 };
  const next = (): Point => ({ x: commands[k++], y: commands[k++] });
  const part = (p: Point, q: Point, share: number): Point => ({
    x: p.x + share * (q.x - p.x),
    y: p.y + share * (q.y - p.y),
  });
  const push = (b: Point, c: Point, d: Point): void => {
    cubics.at(-1)!.push([at, b, c, d]);
    at = d;
    segments++;
  };
  while (k < commands.length) {
    const verb = commands[k++];
    if (verb === ck.MOVE_VERB) {
      at = next();
      cubics.push([]);
    } else if (verb === ck.LINE_VERB) {
      const d = next();
      push(at, d, d);
    } else if (verb === ck.QUAD_VERB || verb === ck.CONIC_VERB) {
      const [b, d] = [next(), next()];
      const weight = verb === ck.CONIC_VERB ? commands[k++] : 1;
      const share = (4 * weight) / (3 * (1 + weight));
      push(part(at, b, share), part(d, b, share), d);
    } else if (verb === ck.CUBIC_VERB) push(next(), next(), next());
  }
  return { cubics: cubics.filter((o) => o.length > 0), segments };
}

/** How far any place of one edge is from the other. */
function furthestApart(a: Cubic[][], b: Cubic[][]): number {
  const others = b.flat().map((c) => ({ c, box: hullBox(c) }));
  let worst = 0;
  for (const c of a.flat())
    for (const t of [0.25, 0.5, 0.75]) {
      const p = evaluate(c, t);
      let least = Infinity;
      for (const { c: other, box } of others) {
        const [dx, dy] = [Math.max(0, box.minX - p.x, p.x - box.maxX), Math.max(0, box.minY - p.y, p.y - box.maxY)];
        if (Math.hypot(dx, dy) < least) least = Math.min(least, nearestOnCubic(other, p).distance);
      }
      worst = Math.max(worst, least);
    }
  return worst;
}

const perimeter = (outlines: Cubic[][]): number =>
  outlines.flat().reduce((sum, c) => {
    let [length, last] = [0, c[0]];
    for (let i = 1; i <= 8; i++) {
      const p = evaluate(c, i / 8);
      length += Math.hypot(p.x - last.x, p.y - last.y);
      last = p;
    }
    return sum + length;
  }, 0);

const VIEW = { scale: 0.62, x: -60, y: -40 };
const FRAMES = 120;

/** The large scene with width marks on every line: frames of a node drag, of pan and of zoom; ms with the raster. */
export async function livingFrames(): Promise<unknown> {
  const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-living-'));
  process.env.YELLOW_QUILL_DATA = data;
  const living: Drawing = withMarks(scene.drawing(null));
  const { id } = keepDrawing('Living', living, 'trace');
  closeDatabase();
  const program = new Program(data);
  try {
    await program.start();
    const browser = await chromium.launch(launchOptions);
    const page = await newPage(browser, program.base);
    await page.goto(program.base);
    await page.evaluate(
      ([key, session]) => localStorage.setItem(key, session),
      [`yellow-quill:session:${id}`, JSON.stringify({ view: VIEW, stage: 'trace', tool: 'nodes' })],
    );
    const begun = performance.now();
    await page.goto(`${program.base}/drawing/${id}`);
    await page.waitForSelector('[data-sharp=true]', { timeout: 120_000 });
    const open = performance.now() - begun;
    await page.waitForTimeout(1_500);
    const box = (await page.getByTestId('page').boundingBox())!;
    const onScreen = (p: Point): Point => ({
      x: box.x + p.x * VIEW.scale + VIEW.x,
      y: box.y + p.y * VIEW.scale + VIEW.y,
    });
    const nodes = linesOf(living.sheets[0]).flatMap((l) => l.runs[0].nodes.slice(2, 5).map((n) => onScreen(n.point)));
    const far = (p: Point): number => Math.hypot(p.x - 640, p.y - 400);
    const node = nodes.reduce((a, b) => (far(a) < far(b) ? a : b));
    await page.mouse.click(node.x, node.y);
    await page.mouse.click(node.x, node.y);
    const figures: Record<string, unknown> = {};
    for (const kind of ['node drag', 'pan', 'zoom'] as const) {
      const { frame } = await page.evaluate(([source, k, n, at]) => (0, eval)(`(${source})`)(k, n, true, at), [
        probe.gesture.toString(),
        kind,
        FRAMES,
        node,
      ] as const);
      figures[kind] = summary(frame);
      await page.waitForTimeout(1_500);
    }
    await browser.close();
    return { lines: scene.LINES, openMs: Math.round(open), ...figures };
  } finally {
    await program.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

/** A belly on each line. */
const withMarks = (d: Drawing): Drawing => ({
  ...d,
  sheets: d.sheets.map((s) => ({
    ...s,
    items: linesOf(s).map((l): Line => {
      const w = l.style.width;
      const mark = (at: number, k: number) => ({ at, left: (w * k) / 2, right: (w * k) / 2 });
      return { ...l, marks: [mark(0, 0.3), mark(0.4, 1.6), mark(1, 0.1)] };
    }),
  })),
});

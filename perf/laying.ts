import fitCurvePackage from 'fit-curve';
import type { Page } from '@playwright/test';
import type * as Paper from 'paper';
import { fitCurve, type Cubic, type Point } from '../src/core';
import { distanceToCurves, stroke, strokeKinds, walk, type Stroke } from '../src/core/test/strokes';
import { measureFollow } from '../demo/measureFollow';
import { sketches } from '../demo/sketches';
import { summary } from './statistics';

const TOLERANCE = 2;
const STROKES = 200;
const round = (v: number, digits = 3): number => Math.round(v * 10 ** digits) / 10 ** digits;

type Fitter = (points: Point[]) => Cubic[];

/** How strokes are fitted, by us and by two packages side by side; and how true a pen that follows ink stays to it. */
export async function laying(): Promise<unknown> {
  return { fitting: await fitting(), following: await following() };
}

async function fitting(): Promise<unknown> {
  // The core alone, which needs no page.
  const { default: paper } = (await import('paper/dist/paper-core.js')) as unknown as { default: typeof Paper };
  paper.setup(new paper.Size(100, 100));
  const byPaper: Fitter = (points) => {
    const path = new paper.Path({ segments: points.map((p) => [p.x, p.y]) });
    path.simplify(TOLERANCE);
    const curves = path.curves.map((c): Cubic => {
      const [a, b] = [c.point1, c.point2];
      return [a, a.add(c.handle1), b.add(c.handle2), b].map((p) => ({ x: p.x, y: p.y })) as Cubic;
    });
    path.remove();
    return curves;
  };
  const byPackage: Fitter = (points) =>
    fitCurvePackage(
      points.map((p) => [p.x, p.y]),
      TOLERANCE,
    ).map((c) => c.map(([x, y]) => ({ x, y })) as Cubic);
  const strokes = Array.from({ length: STROKES }, (_, i) => stroke(strokeKinds[i % strokeKinds.length], 5000 + i));
  const ours = measured(strokes, (points) => fitCurve(points, { tolerance: TOLERANCE }));
  const perPoint = (n: number): number => {
    const points = repeated(n);
    const times = Array.from({ length: 4 }, () => {
      const start = performance.now();
      fitCurve(points, { tolerance: TOLERANCE });
      return performance.now() - start;
    });
    return Math.min(...times) / n;
  };
  return {
    strokes: STROKES,
    tolerance: TOLERANCE,
    ours,
    fitCurvePackage: measured(strokes, byPackage),
    paperSimplify: measured(strokes, byPaper),
    timePerPointAt10000ToThatAt1000: round(perPoint(10_000) / perPoint(1_000), 2),
  };
}

/** One stroke of `n` points: smooth curves set one after another. */
function repeated(n: number): Point[] {
  const points: Point[] = [];
  for (let seed = 1; points.length < n; seed++) {
    const next = stroke('long', seed).points;
    const last = points.at(-1) ?? next[0];
    const by = { x: last.x - next[0].x, y: last.y - next[0].y };
    points.push(...next.map((p) => ({ x: p.x + by.x, y: p.y + by.y })));
  }
  return points.slice(0, n);
}

function measured(strokes: readonly Stroke[], fit: Fitter): unknown {
  const times: number[] = [];
  let [segments, trueSegments, squares, samples, kept, corners, falseOnes, bulge] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const s of strokes) {
    const start = performance.now();
    const cubics = fit(s.points);
    times.push(performance.now() - start);
    segments += cubics.length;
    trueSegments += s.cubics.length;
    for (const p of walk(cubics, 3)) {
      const d = distanceToCurves(s.cubics, p);
      squares += d * d;
      samples++;
      bulge = Math.max(bulge, d);
    }
    const found = cornersOf(cubics);
    corners += s.corners.length;
    kept += s.corners.filter((c) => found.some((f) => Math.hypot(f.x - c.x, f.y - c.y) < 6)).length;
    // The tip of a cusp is a corner to the eye; what counts is a corner on a smooth way.
    if (s.kind !== 'cusp')
      falseOnes += found.filter((f) => !s.corners.some((c) => Math.hypot(f.x - c.x, f.y - c.y) < 6)).length;
  }
  return {
    segmentsToTrue: round(segments / trueSegments, 2),
    rmsToTrueCurve: round(Math.sqrt(squares / samples)),
    furthestFromTrueCurve: round(bulge, 2),
    cornersKept: `${kept} of ${corners}`,
    falseCorners: falseOnes,
    ms: summary(times),
  };
}

/** Joints that turn by more than 60°. */
function cornersOf(cubics: readonly Cubic[]): Point[] {
  return cubics.slice(1).flatMap((c, i) => {
    const [a, b] = [directionIn(cubics[i]), directionOut(c)];
    const turn = Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y));
    return turn > Math.PI / 3 ? [c[0]] : [];
  });
}
const directionOut = (c: Cubic): Point =>
  [c[1], c[2], c[3]].map((p) => ({ x: p.x - c[0].x, y: p.y - c[0].y })).find(isLong) ?? { x: 1, y: 0 };
const directionIn = (c: Cubic): Point =>
  [c[2], c[1], c[0]].map((p) => ({ x: c[3].x - p.x, y: c[3].y - p.y })).find(isLong) ?? { x: 1, y: 0 };
const isLong = (p: Point): boolean => Math.hypot(p.x, p.y) > 1e-6;

async function following(): Promise<unknown> {
  return (await sketches()).map(({ name, image, lines, scale }) => {
    const f = measureFollow(image, lines, scale, 1);
    return {
      picture: name,
      shareWithin1_5px: round(f.near, 4),
      shareWithin1_5pxNearOtherLines: round(f.nearAtCrossings, 4),
      presses: f.presses,
      segments: f.segments,
      trueSegments: f.trueSegments,
      msForAMove: summary(f.moves),
    };
  });
}

/**
 * A pencil stroke of 3,000 points on the page: the longest that it holds the main thread at a time, ms. By the clock, in
 * which other processes on the same processors count as well, and in a second stroke by the time that the thread worked.
 */
export async function pencil(page: Page): Promise<unknown> {
  await page.keyboard.press('2');
  await page.keyboard.press('q');
  const byTheClock = await pencilStroke(page, true);
  // Taken back: the same stroke again would redraw the line that it became.
  await page.keyboard.press('Control+z');
  await page.waitForTimeout(2_000);
  const browser = page.context().browser()!;
  await browser.startTracing(page, { categories: ['-*', 'toplevel'] });
  await pencilStroke(page, false);
  return { ...byTheClock, longestAtWork: longestTasks(JSON.parse((await browser.stopTracing()).toString())) };
}

type Traced = {
  ph: string;
  name: string;
  pid: number;
  tid: number;
  dur?: number;
  tdur?: number;
  args: { name?: string };
};

/** The longest that a page's main thread worked without a break, and how often for over 8 ms. */
function longestTasks({ traceEvents }: { traceEvents: Traced[] }): { ms: number; over8: number; tasks: number } {
  const main = new Set(traceEvents.filter((e) => e.args.name === 'CrRendererMain').map((e) => `${e.pid}:${e.tid}`));
  const worked = traceEvents
    .filter((e) => e.ph === 'X' && e.name === 'ThreadControllerImpl::RunTask' && main.has(`${e.pid}:${e.tid}`))
    // The clock of a thread is now and then read late: no task can have worked for longer than it took.
    .map((e) => Math.min(e.dur ?? 0, e.tdur ?? 0) / 1000)
    .sort((a, b) => b - a);
  return { ms: round(worked[0], 1), over8: worked.filter((w) => w > 8).length, tasks: worked.length };
}

async function pencilStroke(page: Page, timed: boolean): Promise<object> {
  const box = (await page.getByTestId('page').boundingBox())!;
  return page.evaluate(
    async ({ left, top, timed: isTimed }) => {
      const host = document.querySelector<HTMLElement>('[data-testid=page]')!;
      const send = (type: string, i: number): number => {
        const a = i / 90;
        const r = 60 + i / 22;
        const start = performance.now();
        sendPointer(type, left + 400 + r * Math.cos(a), top + 300 + r * Math.sin(a), 1, 0);
        return performance.now() - start;
      };
      const handled: number[] = [];
      const frames: number[] = [];
      const rasters: number[] = [];
      // What is drawn is drawn in the frame's own callbacks: each is timed.
      const frame = window.requestAnimationFrame.bind(window);
      window.requestAnimationFrame = (run) =>
        frame((at) => {
          const start = performance.now();
          run(at);
          frames.push(performance.now() - start);
        });
      const ctx = host.querySelectorAll('canvas')[1].getContext('2d')!;
      send('pointerdown', 0);
      for (let i = 1; i < 3000; i += 12) {
        for (let k = 0; k < 12; k++) handled.push(send('pointermove', i + k));
        await new Promise((done) => frame(done));
        if (!isTimed) continue;
        const start = performance.now();
        ctx.getImageData(0, 0, 1, 1);
        rasters.push(performance.now() - start);
      }
      // From the release until its line is laid and its cards are there: how long nothing else can run at a time.
      const heldFor: number[] = [];
      const { port1, port2 } = new MessageChannel();
      let beat = performance.now();
      port1.onmessage = () => {
        const now = performance.now();
        heldFor.push(now - beat);
        beat = now;
        port2.postMessage(null);
      };
      if (isTimed) port2.postMessage(null);
      const released = send('pointerup', 3000);
      await new Promise((done) => setTimeout(done, 1_500));
      port1.close();
      window.requestAnimationFrame = frame;
      const rounded = (v: number): number => Math.round(v * 100) / 100;
      return {
        points: 3000,
        longestEvent: rounded(Math.max(...handled)),
        longestFrameScript: rounded(Math.max(...frames)),
        release: rounded(released),
        longestHeldAfterRelease: rounded(Math.max(...heldFor)),
        rasterMedian: rounded(rasters.sort((x, y) => x - y)[rasters.length >> 1]),
      };
    },
    { left: box.x, top: box.y, timed },
  );
}

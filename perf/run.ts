import { linesOf } from '../src/core/drawing/items';
import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import path from 'node:path';
import { placedReference } from '../src/core/edits/references';
import { closeDatabase } from '../src/server/database';
import { endDecoding } from '../src/server/decoding';
import { keepDrawing } from '../src/server/drawings';
import { takePicture } from '../src/server/pictures';
import { launchOptions, Program } from '../e2e/program';
import { countReplies, figuresOnDemo, figuresUnderHand } from './figures';
import { beside, bodies, livingFrames } from './inking';
import { colouring } from './colouring';
import { crowd, type Crowd } from './crowd';
import { crowdTable } from './crowdTable';
import { manyChanges } from './manyChanges';
import { delivering } from './delivering';
import { load } from './load';
import { acknowledgedMeanwhile } from './meanwhile';
import { flatFrames } from './flatFrames';
import { laying, pencil } from './laying';
import { newPage } from './newPage';
import { refining } from './refining';
import { nearestLine } from './nearest';
import { photos } from './photos';
import { preparing } from './prepare';
import * as probe from './probe';
import * as scene from './scene';
import { summary } from './statistics';

/**
 * Measures the bench on a large scene, in a browser without a GPU, and prints JSON, and a table of very many lines beside it. Times
 * are ms. `crowd`: that alone.
 */

const FRAMES = 120;
const VIEW = { scale: 0.62, x: -60, y: -40 };

/** Very many lines, and a very long history. */
async function many(): Promise<{ crowd: Crowd[]; history: unknown }> {
  const runs = [await crowd(2_000), await crowd(10_000)];
  process.stderr.write(`${crowdTable(runs)}\n`);
  return { crowd: runs, history: await manyChanges(50_000) };
}

async function main(): Promise<void> {
  if (process.argv[2] === 'crowd') return void process.stdout.write(`${JSON.stringify(await many(), null, 2)}\n`);
  const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-perf-'));
  process.env.YELLOW_QUILL_DATA = data;
  const bytes = await scene.picture();
  const taken = await takePicture(new Blob([new Uint8Array(bytes)]).stream(), bytes.length);
  const reference = placedReference(scene.page, {
    id: 'r',
    name: 'scene.jpg',
    picture: taken.hash,
    pixelWidth: taken.width,
    pixelHeight: taken.height,
    dpi: taken.dpi,
  });
  const drawing = scene.drawing(reference);
  const { id } = keepDrawing('Scene', drawing, 'refine');
  await endDecoding();
  closeDatabase();

  const program = new Program(data);
  try {
    await program.start();
    const { base } = program;
    const browser = await chromium.launch(launchOptions);
    const page = await newPage(browser, base);
    await countReplies(page);
    await page.goto(base);
    const openAt = async (): Promise<void> => {
      await page.evaluate(
        ([key, session]) => localStorage.setItem(key, session),
        [`yellow-quill:session:${id}`, JSON.stringify({ view: VIEW, stage: 'refine', tool: 'nodes' })],
      );
      await page.goto(`${base}/drawing/${id}`);
      await page.waitForSelector('[data-sharp=true]', { timeout: 60_000 });
    };
    await openAt();
    const opens: number[] = [];
    for (let i = 0; i < 5; i++) {
      const before = performance.now();
      await page.goto(`${base}/drawing/${id}`);
      await page.waitForSelector('[data-sharp=true]', { timeout: 60_000 });
      opens.push(performance.now() - before);
    }
    await page.waitForTimeout(1_000);

    // A node in the middle of the window: its line is chosen by a click, then the node is taken hold of.
    const box = (await page.getByTestId('page').boundingBox())!;
    const onScreen = (p: { x: number; y: number }) => ({
      x: box.x + p.x * VIEW.scale + VIEW.x,
      y: box.y + p.y * VIEW.scale + VIEW.y,
    });
    const nodes = linesOf(drawing.sheets[0]).flatMap((l) => l.runs[0].nodes.slice(2, 5).map((n) => onScreen(n.point)));
    const node = nodes.reduce((a, b) => (Math.hypot(a.x - 640, a.y - 400) < Math.hypot(b.x - 640, b.y - 400) ? a : b));
    await page.mouse.click(node.x, node.y);
    await page.mouse.click(node.x, node.y);

    const figures: Record<string, unknown> = {};
    for (const kind of ['node drag', 'pan', 'zoom'] as const) {
      const script = await page.evaluate(([source, k, n, at]) => (0, eval)(`(${source})`)(k, n, false, at), [
        probe.gesture.toString(),
        kind,
        FRAMES,
        node,
      ] as const);
      await page.waitForTimeout(700);
      const whole = await page.evaluate(([source, k, n, at]) => (0, eval)(`(${source})`)(k, n, true, at), [
        probe.gesture.toString(),
        kind,
        FRAMES,
        node,
      ] as const);
      await page.waitForTimeout(700);
      if (
        kind === 'node drag' &&
        !(await page.getByRole('button', { name: 'Undo' }).getAttribute('title'))?.includes('Move node')
      )
        throw new Error('no node was moved');
      figures[kind] = { withRaster: summary(whole.frame), scriptAlone: summary(script.frame) };
    }
    const sharp = await page.evaluate(([source, n]) => (0, eval)(`(${source})`)(n), [
      probe.sharpAgain.toString(),
      12,
    ] as const);
    const whole = await page.evaluate(([source, d, v, n]) => (0, eval)(`(${source})`)(d, v, n), [
      probe.redrawEverything.toString(),
      id,
      VIEW,
      40,
    ] as const);
    const pencilled = await pencil(page);
    // Away from the bench first: it keeps its view when it is left.
    await page.goto(base);
    await openAt();
    const followed = await figuresUnderHand(page, node);
    await browser.close();

    const everything = summary(whole);
    const times = (kind: string) =>
      Math.round((10 * everything.median) / (figures[kind] as { withRaster: { median: number } }).withRaster.median) /
      10;
    const report = {
      scene: {
        lines: scene.LINES,
        segments: scene.SEGMENTS,
        megapixels: (scene.PICTURE.width * scene.PICTURE.height) / 1e6,
        window: '1280x800',
        processors: cpus().length,
        gpu: false,
      },
      frames: figures,
      redrawEverythingEachFrame: everything,
      timesFaster: { pan: times('pan'), zoom: times('zoom'), 'node drag': times('node drag') },
      sharpAgainAfterLastWheel: summary(sharp),
      open: summary(opens),
      figuresUnderHand: followed,
      figuresOnDemo: await figuresOnDemo(),
      nearestLine: nearestLine(drawing),
      pencil: pencilled,
      lay: await laying(),
      refine: await refining(),
      ink: { bodies: bodies(), besideCanvaskit: await beside(), living: await livingFrames() },
      prepare: await preparing(),
      photos: await photos(),
      colour: { ...colouring(), frames: await flatFrames() },
      deliver: {
        of2000: await delivering(2_000),
        of10000: await delivering(10_000),
        acknowledgedMeanwhile: await acknowledgedMeanwhile(10_000),
      },
      load: await load(50, 30),
      ...(await many()),
    };
    process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
  } finally {
    await program.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

main().catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});

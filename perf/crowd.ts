import { allLines, linesOf } from '../src/core/drawing/items';
import { chromium, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { applyChange, writeSvg, type Drawing, type Sheet } from '../src/core';
import { changeOf } from '../src/core/change/changeOf';
import { moveNodes } from '../src/core/edits/nodes';
import { placedReference } from '../src/core/edits/references';
import { closeDatabase } from '../src/server/database';
import { endDecoding } from '../src/server/decoding';
import { keepDrawing } from '../src/server/drawings';
import { takePicture } from '../src/server/pictures';
import { launchOptions, Program } from '../e2e/program';
import { copiedText, drag, keyThenFrame, nudge, pasteText } from './crowdInPage';
import { newPage } from './newPage';
import { opened, type Opened } from './opened';
import * as probe from './probe';
import * as scene from './scene';
import { summary, type Summary } from './statistics';

/** Very many lines at once: opened, chosen, dragged, let go of, pasted. Times are ms, with the raster counted. */

const VIEW = { scale: 0.62, x: -60, y: -40 };
/** As large as the page is seen where the whole window has 1280 by 800 px. */
const SEEN = { width: 730, height: 640 };

export type Crowd = {
  lines: number;
  open: Opened;
  /** The same when it was opened here before. */
  again: Opened;
  chooseAll: number;
  /** A frame while so many lines are dragged. */
  drag: Record<string, Summary>;
  letGo: { longestTask: number; sent: number; saved: number };
  /** From elsewhere, as SVG. */
  paste1000: { made: number; seen: number };
  /** What was copied in the same page. */
  pasteOwn: { made: number; seen: number };
  nodeCommitted: Summary;
  frames: Record<probe.Gesture, Summary>;
  redrawEverything: Summary;
  acknowledged: Summary;
};

export async function crowd(lines: number): Promise<Crowd> {
  const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-perf-'));
  process.env.YELLOW_QUILL_DATA = data;
  const bytes = await scene.picture();
  const taken = await takePicture(new Blob([new Uint8Array(bytes)]).stream(), bytes.length);
  const size = { pixelWidth: taken.width, pixelHeight: taken.height, dpi: taken.dpi };
  const reference = placedReference(scene.page, { id: 'r', name: 'scene.jpg', picture: taken.hash, ...size });
  const drawing = onSheets(scene.drawing(reference, lines));
  const { id } = keepDrawing('Crowd', drawing, 'trace');
  const thousand = writeSvg({
    ...drawing,
    references: [],
    sheets: drawing.sheets.map((s) => ({ ...s, items: linesOf(s).slice(0, s.id === 'rest' ? 300 : 350) })),
  });
  await endDecoding();
  closeDatabase();
  const program = new Program(data);
  try {
    await program.start();
    const browser = await chromium.launch(launchOptions);
    const page = await newPage(browser, program.base);
    let sent = 0;
    page.on('request', (r) => {
      if (r.method() === 'POST' && r.url().endsWith('/changes')) sent += r.postDataBuffer()?.length ?? 0;
    });
    await page.addInitScript(([key, session]) => localStorage.setItem(key, session), [
      `yellow-quill:session:${id}`,
      JSON.stringify({ view: VIEW, window: SEEN, stage: 'trace', tool: 'select' }),
    ] as const);
    const open = await opened(page, id);
    await page.waitForTimeout(6_000);
    const again = await opened(page, id);
    await page.waitForTimeout(3_000);
    const chooseAll = await chooseEverything(page);
    sent = 0;
    const all = await page.evaluate(drag, 60);
    const letGo = { longestTask: all.longestTask, sent, saved: all.saved };
    const drags: Crowd['drag'] = { all: summary(all.frame) };
    let own = '';
    for (const name of ['1000', '401']) {
      await chooseSheet(page, name);
      own ||= await page.evaluate(copiedText);
      drags[name] = summary((await page.evaluate(drag, 60)).frame);
    }
    await page.keyboard.press('Escape');
    await page.waitForTimeout(500);
    // The key that is held for it goes down a moment before.
    await page.keyboard.down('Control');
    await page.waitForTimeout(150);
    const pastedOwn = await page.evaluate(pasteText, own);
    await page.keyboard.press('z');
    await page.waitForTimeout(3_000);
    const pasted = await page.evaluate(pasteText, thousand);
    await page.keyboard.up('Control');
    await page.waitForTimeout(3_000);
    const node = linesOf(drawing.sheets[0])[0].runs[0].nodes[2].point;
    await page.keyboard.press('d');
    const box = (await page.getByTestId('page').boundingBox())!;
    const at = { x: box.x + node.x * VIEW.scale + VIEW.x, y: box.y + node.y * VIEW.scale + VIEW.y };
    await page.mouse.click(at.x, at.y);
    await page.mouse.click(at.x, at.y);
    await page.waitForTimeout(500);
    const nodeCommitted = summary(await page.evaluate(nudge, 40));
    await page.waitForTimeout(1_500);
    const frames = {} as Crowd['frames'];
    for (const kind of ['node drag', 'pan', 'zoom'] as const) {
      const run = ([source, k, n, place]: readonly [string, string, number, object]): Promise<probe.Frames> =>
        (0, eval)(`(${source})`)(k, n, true, place) as Promise<probe.Frames>;
      frames[kind] = summary((await page.evaluate(run, [probe.gesture.toString(), kind, 120, at] as const)).frame);
      await page.waitForTimeout(1_500);
    }
    const whole = ([source, d, v, n]: readonly [string, string, typeof VIEW, number]): Promise<number[]> =>
      (0, eval)(`(${source})`)(d, v, n) as Promise<number[]>;
    const redrawEverything = summary(
      await page.evaluate(whole, [probe.redrawEverything.toString(), id, VIEW, 12] as const),
    );
    await browser.close();
    const acknowledged = summary(await acknowledgements(program.base, id));
    return {
      lines,
      open,
      again,
      chooseAll: Math.round(chooseAll),
      drag: drags,
      letGo,
      paste1000: { made: Math.round(pasted.made), seen: Math.round(pasted.seen) },
      pasteOwn: { made: Math.round(pastedOwn.made), seen: Math.round(pastedOwn.seen) },
      nodeCommitted,
      frames,
      redrawEverything,
      acknowledged,
    };
  } finally {
    await program.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

/** The lines of a scene on sheets of 401, of 1,000, and of all others. */
function onSheets(d: Drawing): Drawing {
  const lines = allLines(d);
  const part = (id: string, from: number, to?: number): Sheet => ({
    ...d.sheets[0],
    id,
    name: id,
    items: lines.slice(from, to),
  });
  return { ...d, sheets: [part('rest', 1_401), part('1000', 401, 1_401), part('401', 0, 401)] };
}

/** How long the server takes to acknowledge one small change after the other, its snapshots included. */
async function acknowledgements(base: string, id: string): Promise<number[]> {
  const opened = (await (await fetch(`${base}/api/drawings/${id}`)).json()) as { drawing: Drawing; revision: number };
  let { drawing, revision } = opened;
  const found: number[] = [];
  for (let i = 0; i < 2_000; i++) {
    const lines = linesOf(drawing.sheets[i % 3]);
    const edit = moveNodes(drawing, [{ line: lines[i % lines.length].id, run: 0, node: i % 5 }], { x: 1, y: 1 });
    const change = changeOf(edit, `a${i}`);
    const body = JSON.stringify({ base: revision, changes: [change] });
    const before = performance.now();
    const answer = await fetch(`${base}/api/drawings/${id}/changes`, { method: 'POST', body });
    revision = ((await answer.json()) as { revision: number }).revision;
    found.push(performance.now() - before);
    drawing = applyChange(drawing, change);
  }
  return found;
}

/** Ctrl A, until the frame that shows it is painted. */
const chooseEverything = (page: Page): Promise<number> => page.evaluate(keyThenFrame, { key: 'a', ctrlKey: true });

/** Chooses all lines of one sheet, which is seen alone for that. */
async function chooseSheet(page: Page, name: string): Promise<void> {
  await page.keyboard.press('Escape');
  await page.locator(`[data-sheet="${name}"] .name`).click();
  await page.keyboard.press('Shift+S');
  await page.waitForTimeout(500);
  await page.keyboard.press('Control+a');
  await page.waitForTimeout(500);
  await page.keyboard.press('Shift+S');
  await page.waitForTimeout(1_500);
}

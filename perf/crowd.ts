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
  pageSeen: number;
  open: number;
  /** When it was opened here before: its page as it was seen then, the page itself, and all of it sharp. */
  again: Opened;
  chooseAll: number;
  /** A frame while so many lines are dragged. */
  drag: Record<string, Summary>;
  letGo: { longestTask: number; sent: number; saved: number };
  paste1000: number;
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
    sheets: drawing.sheets.map((s) => ({ ...s, items: linesOf(s).slice(0, 250) })),
  });
  await endDecoding();
  closeDatabase();
  const program = new Program(data);
  try {
    await program.start();
    const browser = await chromium.launch(launchOptions);
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      baseURL: program.base,
      bypassCSP: true,
    });
    let sent = 0;
    page.on('request', (r) => {
      if (r.method() === 'POST' && r.url().endsWith('/changes')) sent += r.postDataBuffer()?.length ?? 0;
    });
    await page.addInitScript('globalThis.__name = (f) => f');
    await page.addInitScript(([key, session]) => localStorage.setItem(key, session), [
      `yellow-quill:session:${id}`,
      JSON.stringify({ view: VIEW, window: SEEN, stage: 'trace', tool: 'select' }),
    ] as const);
    const { pageSeen, open } = await opened(page, id);
    await page.waitForTimeout(6_000);
    const again = await opened(page, id);
    await page.waitForTimeout(3_000);
    const chooseAll = await chooseEverything(page);
    sent = 0;
    const all = await page.evaluate(drag, 60);
    const letGo = { longestTask: all.longestTask, sent, saved: all.saved };
    const drags: Crowd['drag'] = { all: summary(all.frame) };
    for (const name of ['1000', '401']) {
      await chooseSheet(page, name);
      drags[name] = summary((await page.evaluate(drag, 60)).frame);
    }
    await page.keyboard.press('Escape');
    await page.waitForTimeout(500);
    // The key that is held for it goes down a moment before.
    await page.keyboard.down('Control');
    await page.waitForTimeout(150);
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
      pageSeen,
      open,
      again,
      chooseAll: Math.round(chooseAll),
      drag: drags,
      letGo,
      paste1000: Math.round(pasted),
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

// What follows runs in the page.

function keyThenFrame(key: KeyboardEventInit): Promise<number> {
  const canvases = [...document.querySelectorAll<HTMLCanvasElement>('[data-testid=page] canvas')];
  const before = performance.now();
  window.dispatchEvent(new KeyboardEvent('keydown', { ...key, bubbles: true, cancelable: true }));
  return new Promise((resolve) =>
    requestAnimationFrame(() =>
      setTimeout(() => {
        for (const c of canvases) c.getContext('2d')!.getImageData(0, 0, 1, 1);
        resolve(performance.now() - before);
      }, 0),
    ),
  );
}

/** Drags what is chosen by a line near the middle of the window: each frame, and what letting go of it took. */
async function drag(frames: number): Promise<{ frame: number[]; longestTask: number; saved: number }> {
  const host = document.querySelector<HTMLElement>('[data-testid=page]')!;
  const canvases = [...host.querySelectorAll('canvas')];
  const box = host.getBoundingClientRect();
  host.setPointerCapture = () => undefined;
  const send = (type: string, x: number, y: number, buttons: number): boolean =>
    host.dispatchEvent(
      new PointerEvent(type, {
        clientX: x,
        clientY: y,
        button: type === 'pointermove' ? -1 : 0,
        buttons,
        pointerId: 1,
        pointerType: 'mouse',
        bubbles: true,
        cancelable: true,
      }),
    );
  // A place on a line that is chosen: where the pointer turns into one that moves.
  let at = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
  for (let i = 0; i < 4_000; i++) {
    const turn = i * 0.35;
    const far = 2 + i * 0.09;
    at = { x: box.left + box.width / 2 + Math.cos(turn) * far, y: box.top + box.height / 2 + Math.sin(turn) * far };
    send('pointermove', at.x, at.y, 0);
    await new Promise((r) => requestAnimationFrame(r));
    if (host.style.cursor.includes('pointer') || /over|move/.test(document.querySelector('.hints')?.textContent ?? ''))
      break;
  }
  const frame: number[] = [];
  send('pointerdown', at.x, at.y, 1);
  for (let i = 0; i < frames; i++) {
    const turn = (i / frames) * Math.PI * 4;
    await new Promise<void>((resolve) => {
      const before = performance.now();
      send('pointermove', at.x + Math.sin(turn) * 60 + 8, at.y + (1 - Math.cos(turn)) * 40, 1);
      const handled = performance.now() - before;
      let began = 0;
      requestAnimationFrame(() => (began = performance.now()));
      requestAnimationFrame(() => {
        for (const c of canvases) c.getContext('2d')!.getImageData(0, 0, 1, 1);
        frame.push(handled + performance.now() - began);
        setTimeout(resolve, 0);
      });
    });
  }
  let longestTask = 0;
  const observer = new PerformanceObserver((list) => {
    for (const e of list.getEntries()) longestTask = Math.max(longestTask, e.duration);
  });
  observer.observe({ type: 'longtask' });
  const before = performance.now();
  send('pointerup', at.x, at.y, 0);
  const save = document.querySelector<HTMLElement>('.save')!;
  await new Promise((r) => setTimeout(r, 0));
  while (save.dataset.save !== 'saved' && performance.now() - before < 60_000)
    await new Promise((r) => setTimeout(r, 5));
  const saved = performance.now() - before;
  await new Promise((r) => setTimeout(r, 1_500));
  observer.disconnect();
  return { frame, longestTask, saved };
}

/** Pastes a text; until it is a change on its way to the disk, and painted. */
async function pasteText(text: string): Promise<number> {
  const canvases = [...document.querySelectorAll<HTMLCanvasElement>('[data-testid=page] canvas')];
  const save = document.querySelector<HTMLElement>('.save')!;
  const data = new DataTransfer();
  data.setData('text/plain', text);
  const before = performance.now();
  const isMade = new Promise<void>((resolve) => {
    const observer = new MutationObserver(() => {
      if (save.dataset.save === 'saved') return;
      observer.disconnect();
      resolve();
    });
    observer.observe(save, { attributes: true });
  });
  document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  await isMade;
  await new Promise((r) => requestAnimationFrame(() => setTimeout(r, 0)));
  for (const c of canvases) c.getContext('2d')!.getImageData(0, 0, 1, 1);
  return performance.now() - before;
}

/** The main thread's work for one node moved by an arrow key, many times. */
async function nudge(times: number): Promise<number[]> {
  const found: number[] = [];
  for (let i = 0; i < times; i++) {
    const before = performance.now();
    for (const type of ['keydown', 'keyup'])
      window.dispatchEvent(
        new KeyboardEvent(type, { key: i % 2 ? 'ArrowLeft' : 'ArrowRight', bubbles: true, cancelable: true }),
      );
    await Promise.resolve();
    found.push(performance.now() - before);
    await new Promise((r) => setTimeout(r, 60));
  }
  return found;
}

import { linesOf } from '../src/core/drawing/items';
import { chromium, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Drawing } from '../src/core';
import { launchOptions, Program } from '../e2e/program';
import { demoDrawing } from '../e2e/bench';
import { newPage } from './newPage';

const FRAMES = 120;

/** Counts what workers answer: a figure that is measured anew can be the same as before, to a tenth of a px. */
export const countReplies = (page: Page): Promise<unknown> =>
  page.addInitScript(`{
    globalThis.__replies = 0;
    const Plain = Worker;
    globalThis.Worker = class extends Plain {
      constructor(url, options) {
        super(url, options);
        this.addEventListener('message', () => globalThis.__replies++);
      }
    };
  }`);

/** How the figures follow a hand on the demo's pear, in a node drag of its longest line. */
export async function figuresOnDemo(): Promise<unknown> {
  const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-figures-'));
  execFileSync('node_modules/.bin/tsx', ['demo/make.ts'], { env: { ...process.env, YELLOW_QUILL_DATA: data } });
  const program = new Program(data);
  try {
    await program.start();
    const browser = await chromium.launch(launchOptions);
    const page = await newPage(browser, program.base);
    await countReplies(page);
    await page.goto('/');
    const id = await demoDrawing(page.request, 'Pear');
    const view = { scale: 0.7, x: 190, y: 10 };
    await page.evaluate(
      ([key, session]) => localStorage.setItem(key, session),
      [`yellow-quill:session:${id}`, JSON.stringify({ view, stage: 'refine', tool: 'nodes' })],
    );
    await page.goto(`/drawing/${id}`);
    const { drawing } = (await (await page.request.get(`/api/drawings/${id}`)).json()) as { drawing: Drawing };
    const open = drawing.sheets
      .filter((s) => s.visible && !s.locked)
      .flatMap((s) => linesOf(s).map((l) => l.runs[0].nodes));
    const nodes = open.reduce((a, b) => (b.length > a.length ? b : a));
    const { point } = nodes[nodes.length >> 1];
    const box = (await page.getByTestId('page').boundingBox())!;
    const at = { x: box.x + point.x * view.scale + view.x, y: box.y + point.y * view.scale + view.y };
    // The first time the browser is still busy with compiling what runs.
    const first = await figuresUnderHand(page, at);
    await page.keyboard.press('Control+z');
    await page.waitForTimeout(3_000);
    const again = await figuresUnderHand(page, at);
    await browser.close();
    return { first, again };
  } finally {
    await program.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

/**
 * How the figures of distance follow a hand: in how many of the frames of a node drag something was measured anew, and
 * in how many the figures differ; how long such a frame is, and how long after the release the last figure comes, ms.
 */
export async function figuresUnderHand(page: Page, node: { x: number; y: number }): Promise<unknown> {
  await page.waitForSelector('[data-state=ready]', { timeout: 120_000 });
  await page.mouse.click(node.x, node.y);
  await page.mouse.click(node.x, node.y);
  await page.waitForTimeout(1_000);
  return page.evaluate(
    async ({ node: at, frames }) => {
      let news = 0;
      let last = 0;
      const table = document.querySelector('table.figures')!;
      new MutationObserver(() => {
        news++;
        last = performance.now();
      }).observe(table, { subtree: true, characterData: true, childList: true });
      sendPointer('pointermove', at.x, at.y, 0);
      sendPointer('pointerdown', at.x, at.y, 1);
      const replies = (): number => (globalThis as unknown as { __replies?: number }).__replies ?? 0;
      let [fresh, measured, before] = [0, 0, performance.now()];
      const begun = replies();
      const lengths: number[] = [];
      for (let i = 1; i <= frames; i++) {
        const [seen, answered] = [news, replies()];
        sendPointer('pointermove', at.x + 10 * Math.sin(i / 8), at.y + 10 * (1 - Math.cos(i / 8)), 1);
        const now = await new Promise<number>((done) => requestAnimationFrame(done));
        lengths.push(now - before);
        before = now;
        if (news > seen) fresh++;
        if (replies() > answered) measured++;
      }
      const measures = replies() - begun;
      const released = performance.now();
      sendPointer('pointerup', at.x + 10 * Math.sin(frames / 8), at.y + 10 * (1 - Math.cos(frames / 8)), 0);
      await new Promise((done) => setTimeout(done, 350));
      return {
        frames,
        measures,
        framesMeasured: measured,
        framesWithNewFigures: fresh,
        meanFrame: Math.round((10 * lengths.reduce((a, b) => a + b, 0)) / frames) / 10,
        lastFigureAfterRelease: Math.round(Math.max(0, last - released)),
      };
    },
    { node, frames: FRAMES },
  );
}

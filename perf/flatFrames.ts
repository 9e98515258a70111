import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { applyChange, emptyDrawing, firstStyle, plainPage, type Drawing, type Line, type Node } from '../src/core';
import { drawingOnGrid } from '../src/core/change/onGrid';
import { boundsOf, pourAll } from '../src/core/edits/flats';
import { placedArea } from '../src/core/edits/placedArea';
import { arrangementOf } from '../src/core/flats/arrangement';
import { closeDatabase } from '../src/server/database';
import { keepDrawing } from '../src/server/drawings';
import { launchOptions, Program } from '../e2e/program';
import { newPage } from './newPage';
import * as probe from './probe';
import { summary } from './statistics';

/** A net of so many cells: every line waves, so that all outlines are curves. */
const [COLUMNS, ROWS, CELL] = [25, 20, 40];
const FRAMES = 120;
const VIEW = { scale: 0.62, x: 20, y: 20 };

const node = (x: number, y: number, dx: number, dy: number): Node => ({
  point: { x, y },
  in: { x: -dx, y: -dy },
  out: { x: dx, y: dy },
  kind: 'smooth',
});

/** Lines along a net's rows and columns; upright ones have a node in each second row: eight cells hang on it. */
function net(): Drawing {
  const page = plainPage({ width: (COLUMNS + 2) * CELL, height: (ROWS + 2) * CELL, unit: 'px', dpi: 96, ground: null });
  const empty = emptyDrawing(page, { id: 's', name: 'Net', tag: '#0b6b66' });
  const line = (id: string, nodes: Node[]): Line => ({ id, runs: [{ closed: false, nodes }], style: firstStyle });
  const wave = (k: number): number => 5 * (k % 2 === 0 ? 1 : -1);
  const [right, bottom] = [(COLUMNS + 1) * CELL, (ROWS + 1) * CELL];
  const rows = Array.from({ length: ROWS + 1 }, (_, k) =>
    line(`r${k}`, [node(CELL - 8, CELL * (k + 1), 160, wave(k)), node(right + 8, CELL * (k + 1), 160, wave(k))]),
  );
  const columns = Array.from({ length: COLUMNS + 1 }, (_, k) => {
    const x = CELL * (k + 1);
    const middle = Array.from({ length: 10 }, (_m, i) => node(x, CELL * (2 * i + 1.5), wave(i + k), CELL / 2));
    return line(`c${k}`, [node(x, CELL - 8, 0, 30), ...middle, node(x, bottom + 8, 0, 30)]);
  });
  return drawingOnGrid({ ...empty, sheets: [{ ...empty.sheets[0], items: [...rows, ...columns] }] });
}

function coloured(d: Drawing): Drawing {
  let k = 0;
  const areas = arrangementOf(
    boundsOf(d).map((b) => b.run),
    { gap: 0 },
  ).areas();
  const { edit } = pourAll(d, areas.map(placedArea), { fill: '#c8b89a', gap: 0, freshId: () => `f${k++}` });
  return applyChange(d, { id: 'pour', ...edit });
}

/** Frames over a net of 500 cells, with a flat in each and with none: panned, zoomed, and with a node in hand. */
export async function flatFrames(): Promise<unknown> {
  const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-perf-'));
  process.env.YELLOW_QUILL_DATA = data;
  const bare = net();
  const drawings = { without: bare, withFlats: coloured(bare) };
  const ids = Object.entries(drawings).map(([name, d]) => [name, keepDrawing(name, d, 'refine').id] as const);
  closeDatabase();
  const program = new Program(data);
  try {
    await program.start();
    const browser = await chromium.launch(launchOptions);
    const found: Record<string, unknown> = {};
    for (const [name, id] of ids) {
      const page = await newPage(browser, program.base);
      await page.goto(program.base);
      await page.evaluate(
        ([key, session]) => localStorage.setItem(key, session),
        [`yellow-quill:session:${id}`, JSON.stringify({ view: VIEW, stage: 'refine', tool: 'nodes' })],
      );
      await page.goto(`${program.base}/drawing/${id}`);
      await page.waitForSelector('[data-sharp=true]', { timeout: 60_000 });
      const box = (await page.getByTestId('page').boundingBox())!;
      const at = {
        x: box.x + CELL * 12 * VIEW.scale + VIEW.x,
        y: box.y + CELL * 9.5 * VIEW.scale + VIEW.y,
      };
      await page.mouse.click(at.x, at.y);
      await page.mouse.click(at.x, at.y);
      const figures: Record<string, unknown> = {};
      for (const kind of ['node drag', 'pan', 'zoom'] as const) {
        const frames = await page.evaluate(([source, k, n, p]) => (0, eval)(`(${source})`)(k, n, true, p), [
          probe.gesture.toString(),
          kind,
          FRAMES,
          at,
        ] as const);
        await page.waitForTimeout(700);
        const undo = await page.getByRole('button', { name: 'Undo' }).getAttribute('title');
        if (kind === 'node drag' && !undo?.includes('Move node')) throw new Error('no node was moved');
        figures[kind] = summary((frames as probe.Frames).frame);
      }
      found[name] = figures;
      await page.close();
    }
    await browser.close();
    return { cells: COLUMNS * ROWS, ...found };
  } finally {
    await program.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

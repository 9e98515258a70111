import { expect, test } from '@playwright/test';
import Database from 'better-sqlite3';
import { mkdtempSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BenchHand, makeDrawing, near } from './bench';
import { Program } from './program';

const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-kill-'));
const server = new Program(data);
test.afterAll(() => server.stop('SIGKILL'));

test('kill -9 between two changes: what was acknowledged is there, and the page goes on without a reload', async ({
  browser,
}) => {
  await server.start();
  const context = await browser.newContext({
    baseURL: server.base,
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  const id = await makeDrawing(context.request);
  const hand = await BenchHand.open(page, id);
  const places = [
    { x: 100, y: 100 },
    { x: 250, y: 130 },
    { x: 300, y: 300 },
    { x: 150, y: 350 },
    { x: 90, y: 220 },
  ];

  await hand.click(places[0]);
  await hand.click(places[1]);
  expect(await hand.nodes()).toHaveLength(2);
  await server.stop('SIGKILL');

  await hand.click(places[2]);
  await hand.click(places[3]);
  await expect(page.locator('.save')).toHaveText('2 changes waiting here');

  await server.start();
  await expect(page.locator('.save')).toHaveAttribute('data-save', 'saved', { timeout: 20_000 });
  await hand.click(places[4]);
  const nodes = await hand.nodes();
  expect(nodes).toHaveLength(5);
  places.forEach((p, i) => near(nodes[i].point, p));

  // Waiting changes outlive the page as well.
  await server.stop('SIGKILL');
  await page.keyboard.press('Backspace');
  await expect(page.locator('.save')).toHaveText('1 change waiting here');
  await page.close();
  await server.start();
  const again = await context.newPage();
  await again.goto(`/drawing/${id}`);
  await expect(again.getByRole('alert').filter({ hasText: 'from your last visit' })).toBeVisible();
  const { drawing } = await (await context.request.get(`/api/drawings/${id}`)).json();
  expect(drawing.sheets[0].items[0].runs[0].nodes).toHaveLength(4);
  await context.close();
});

test('one tab edits, a second reads and can take over; what comes too late is kept aside', async ({
  context,
  page,
  request,
}) => {
  const id = await makeDrawing(request, 'Two tabs');
  const hand = await BenchHand.open(page, id);
  await hand.click({ x: 100, y: 100 });
  await hand.click({ x: 200, y: 100 });
  await hand.saved();

  const second = await context.newPage();
  await second.goto(`/drawing/${id}`);
  await expect(second.getByText('open in another tab')).toBeVisible();
  await expect(second.locator('.save')).toHaveText('reading only');
  await hand.click({ x: 200, y: 200 });
  await hand.saved();
  await expect(second.locator('.stages')).toContainText('3 nodes');
  await second.getByRole('button', { name: 'Edit here instead' }).click();
  await expect(page.getByText('open in another tab')).toBeVisible();
  await expect(second.locator('.save')).toHaveAttribute('data-save', 'saved');

  // Someone else changes the drawing behind the back of the tab that edits.
  const { drawing, revision } = await (await request.get(`/api/drawings/${id}`)).json();
  const step = {
    step: 'setSheet',
    id: drawing.sheets[0].id,
    before: { name: 'Sheet 1' },
    after: { name: 'Elsewhere' },
  };
  expect(
    (
      await request.post(`/api/drawings/${id}/changes`, {
        data: { base: revision, changes: [{ id: 'else', label: 'Rename', steps: [step] }] },
      })
    ).ok(),
  ).toBe(true);
  await second.getByRole('button', { name: 'Lock Sheet 1' }).click();
  await expect(second.getByRole('alert').filter({ hasText: 'kept as “Two tabs (kept aside)”' })).toBeVisible();
  await second.getByRole('button', { name: 'Open it' }).click();
  await expect(second.getByRole('button', { name: 'Unlock Sheet 1' })).toBeVisible();
});

test('what was done before a reload is undone after it, to the empty page, and made again', async ({ page }) => {
  const hand = await BenchHand.open(page, await makeDrawing(page.request));
  for (const y of [100, 200, 300]) {
    await hand.click({ x: 100, y });
    await hand.click({ x: 300, y });
    await page.keyboard.press('Enter');
  }
  await page.keyboard.press('Control+z');
  const before = await hand.lines();
  expect(before.map((l) => l.runs[0].nodes.length)).toEqual([2, 2, 1]);
  await page.reload();
  await hand.ready();
  const undo = page.getByRole('button', { name: 'Undo' });
  await expect(undo).toHaveAttribute('title', 'Undo: Start line');
  await page.keyboard.press('Control+Shift+z');
  expect((await hand.lines()).map((l) => l.runs[0].nodes.length)).toEqual([2, 2, 2]);
  for (let i = 0; i < 6; i++) await page.keyboard.press('Control+z');
  expect(await hand.lines()).toEqual([]);
  await expect(undo).toBeDisabled();
  for (let i = 0; i < 6; i++) await page.keyboard.press('Control+Shift+z');
  expect(await hand.lines()).toHaveLength(3);
});

test('a damaged journal: the drawing opens as it was before, can go on as a copy, and what came after is saved', async ({
  browser,
}) => {
  await server.stop('SIGKILL');
  await server.start();
  const context = await browser.newContext({ baseURL: server.base, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const id = await makeDrawing(context.request, 'Harmed');
  const hand = await BenchHand.open(page, id);
  for (const x of [100, 200, 300, 400]) await hand.click({ x, y: 100 });
  expect(await hand.nodes()).toHaveLength(4);
  await server.stop('SIGKILL');
  const db = new Database(path.join(data, 'yellow-quill.sqlite'));
  db.prepare('update journal set body = ? where drawing_id = ? and revision = 3').run('{', id);
  db.close();
  await server.start();
  await page.reload();
  await hand.ready();
  const bar = page.getByRole('status').filter({ hasText: 'cannot be read' });
  await expect(bar).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    bar.getByRole('link', { name: 'Save what came after' }).click(),
  ]);
  expect(JSON.parse(await readFile(await download.path(), 'utf8')).rows).toHaveLength(2);
  await bar.getByRole('button', { name: 'Go on from here as a copy' }).click();
  await expect(page.locator('.mark .title')).toHaveText('Harmed (copy)');
  const { drawings } = await (await context.request.get('/api/drawings')).json();
  const copy = drawings.find((d: { title: string }) => d.title === 'Harmed (copy)');
  const { drawing } = await (await context.request.get(`/api/drawings/${copy.id}`)).json();
  expect(drawing.sheets[0].items[0].runs[0].nodes).toHaveLength(2);
  await context.close();
});

import { expect, test, type Browser, type Page } from '@playwright/test';
import { closeSync, mkdtempSync, openSync, readdirSync, rmSync, statSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BenchHand, makeDrawing } from './bench';
import { Program } from './program';

/** What is kept is looked after: backed up, put back, found damaged; and what a server lost, the browser gives again. */

const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-keeping-'));
const file = path.join(data, 'yellow-quill.sqlite');
const server = new Program(data);
test.afterAll(() => server.stop('SIGKILL'));
test.describe.configure({ mode: 'serial' });

const opened = async (browser: Browser): Promise<Page> => {
  const context = await browser.newContext({ baseURL: server.base, viewport: { width: 1280, height: 800 } });
  return context.newPage();
};
const lay = async (hand: BenchHand, page: Page, y: number): Promise<void> => {
  await hand.click({ x: 100, y });
  await hand.click({ x: 300, y });
  await page.keyboard.press('Enter');
};
const linesOf = async (page: Page, id: string): Promise<number> =>
  (await (await page.request.get(`/api/drawings/${id}`)).json()).drawing.sheets[0].items.length;

test('a backup is taken and put back; what the drawing lost by that, its browser gives again', async ({ browser }) => {
  await server.start();
  const page = await opened(browser);
  const id = await makeDrawing(page.request, 'Kept');
  const hand = await BenchHand.open(page, id);
  await lay(hand, page, 100);
  await hand.saved();

  const keeping = await page.context().newPage();
  await keeping.goto('/');
  await keeping.getByRole('link', { name: 'Safe-keeping' }).click();
  await keeping.getByRole('button', { name: 'Back up now' }).click();
  await expect(keeping.getByRole('row').filter({ hasText: 'asked for' })).toHaveCount(1);

  await lay(hand, page, 200);
  await hand.saved();
  await keeping.getByRole('row').filter({ hasText: 'asked for' }).getByRole('button', { name: 'Put back' }).click();
  await keeping.getByRole('tooltip').getByRole('button', { name: 'Put back' }).click();
  await expect(keeping.getByRole('row').filter({ hasText: 'before another was put back' })).toHaveCount(1);
  expect(await linesOf(page, id)).toBe(1);

  // The page that was open all the while finds out when it saves, and can give all of it again.
  await lay(hand, page, 300);
  await expect(page.getByRole('status').filter({ hasText: 'The server has gone back' })).toBeVisible();
  await expect(page.locator('.stages')).toContainText('3 lines');
  await page.getByRole('button', { name: 'Give them again' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'given to the server again' })).toBeVisible();
  await expect(page.locator('.message.reading')).toHaveCount(0);
  expect(await linesOf(page, id)).toBe(3);
  await lay(hand, page, 400);
  await hand.saved();
  expect(await linesOf(page, id)).toBe(4);

  // One that is opened only afterwards finds out when it is opened.
  await page.close();
  await keeping.getByRole('row').filter({ hasText: 'asked for' }).getByRole('button', { name: 'Put back' }).click();
  await keeping.getByRole('tooltip').getByRole('button', { name: 'Put back' }).click();
  await expect(keeping.getByRole('row').filter({ hasText: 'before another was put back' })).toHaveCount(2);
  const again = await keeping.context().newPage();
  await again.goto(`/drawing/${id}`);
  await expect(again.getByRole('status').filter({ hasText: 'The server has gone back' })).toBeVisible();
  await again.getByRole('button', { name: 'Keep them as a drawing of their own' }).click();
  await expect(again.getByRole('alert').filter({ hasText: 'kept as “Kept (kept aside)”' })).toBeVisible();
  expect(await linesOf(again, id)).toBe(1);
  await again.getByRole('button', { name: 'Open it' }).click();
  await expect(again.locator('.stages')).toContainText('4 lines');
  await again.context().close();
});

test('a database that is taken away, damaged or gone is told of in words, with the ways back', async ({ browser }) => {
  const page = await opened(browser);
  const id = await makeDrawing(page.request, 'In danger');
  const hand = await BenchHand.open(page, id);
  await lay(hand, page, 100);
  await hand.saved();
  rmSync(file);
  await lay(hand, page, 200);
  await expect(page.getByRole('alert').filter({ hasText: 'taken away or exchanged' })).toBeVisible();
  await expect(page.locator('.save')).toContainText('waiting here');

  const keeping = await page.context().newPage();
  await keeping.goto('/');
  await expect(keeping).toHaveURL(/keeping/);
  await expect(keeping.locator('.keeping .ant-alert')).toContainText('The drawings cannot be opened');
  await keeping.getByRole('button', { name: /Put back the newest sound backup/ }).click();
  await keeping.getByRole('link', { name: 'To the drawings' }).click();
  await expect(keeping.getByRole('list', { name: 'Drawings' })).toContainText('In danger');
  // What waited meanwhile went by itself.
  await expect(page.locator('.save')).toHaveAttribute('data-save', 'saved', { timeout: 20_000 });
  expect(await linesOf(page, id)).toBe(2);

  await server.stop('SIGKILL');
  const handle = openSync(file, 'r+');
  writeSync(handle, Buffer.alloc(2_000, 0x5a), 0, 2_000, 0);
  closeSync(handle);
  await server.start();
  await keeping.goto('/');
  await expect(keeping.locator('.keeping .ant-alert')).toContainText('damaged');
  await keeping.getByRole('button', { name: /Put back the newest sound backup/ }).click();
  await expect(keeping.getByRole('link', { name: 'To the drawings' })).toBeVisible();
  const asides = readdirSync(path.join(data, 'aside'));
  expect(asides.length).toBeGreaterThan(0);
  const aside = keeping.getByRole('region', { name: 'Put aside' });
  await expect(aside.getByRole('row').filter({ hasText: /kB|MB/ })).toHaveCount(asides.length);
  await aside.getByRole('button', { name: 'Delete' }).first().click();
  await keeping.getByRole('tooltip').getByRole('button', { name: 'Delete' }).click();
  await expect(aside.getByRole('row').filter({ hasText: /kB|MB/ })).toHaveCount(asides.length - 1);
  expect(readdirSync(path.join(data, 'aside'))).toEqual(asides.toSorted().slice(0, -1));

  await server.stop('SIGKILL');
  for (const end of ['', '-wal', '-shm']) rmSync(`${file}${end}`, { force: true });
  writeFileSync(file, '');
  await server.start();
  await keeping.goto('/');
  await expect(keeping.locator('.keeping .ant-alert')).toContainText('Nothing was begun in its place');
  expect(statSync(file).size).toBe(0);
  await keeping.getByRole('button', { name: 'Begin anew' }).click();
  await keeping.getByRole('tooltip').getByRole('button', { name: 'Begin anew' }).click();
  await keeping.getByRole('link', { name: 'To the drawings' }).click();
  await expect(keeping.getByRole('heading', { name: 'Drop a sketch or a photo anywhere here' })).toBeVisible();
  await keeping.context().close();
});

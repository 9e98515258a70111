import { expect, test } from '@playwright/test';
import { BenchHand, drawingWith, levelLine } from './bench';

test('a version is kept by name, held against what came since, gone back to, and all of it taken back', async ({
  page,
}) => {
  const lines = [levelLine('one', 200), levelLine('two', 300)];
  const hand = await BenchHand.open(page, await drawingWith(page.request, lines), { tool: 'select' });
  const versions = page.getByRole('button', { name: 'Versions', exact: true });
  await versions.click();
  const name = page.getByLabel('Name of the version');
  await expect(page.getByRole('button', { name: 'Keep', exact: true })).toBeDisabled();
  await name.fill('two lines');
  await name.press('Enter');
  await expect(page.getByRole('button', { name: 'Go back to two lines' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(name).toBeHidden();

  await hand.click({ x: 350, y: 200 });
  await page.keyboard.press('Delete');
  expect((await hand.lines()).map((l) => l.id)).toEqual(['two']);
  const there = { x: 350, y: 200 };
  await hand.move({ x: 350, y: 450 });
  const dark = async (): Promise<boolean> => Math.max(...(await hand.colourAt(there))) < 90;
  expect(await dark()).toBe(false);

  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await page.getByRole('menuitem', { name: 'as “two lines”' }).click();
  await hand.move({ x: 360, y: 450 });
  await page.keyboard.down('x');
  await expect.poll(dark).toBe(true);
  await page.keyboard.up('x');
  await expect.poll(dark).toBe(false);
  expect((await hand.lines()).map((l) => l.id)).toEqual(['two']);

  await versions.click();
  await page.getByRole('button', { name: 'Go back to two lines' }).click();
  await expect.poll(async () => (await hand.lines()).map((l) => l.id)).toEqual(['one', 'two']);
  expect(await hand.lines()).toEqual(lines);
  await page.keyboard.press('Control+z');
  expect((await hand.lines()).map((l) => l.id)).toEqual(['two']);
  await page.keyboard.press('Control+Shift+z');
  expect(await hand.lines()).toEqual(lines);

  await page.reload();
  await hand.ready();
  await versions.click();
  await page.getByRole('button', { name: 'Forget two lines' }).click();
  await expect(page.getByText('None is kept yet')).toBeVisible();
  await page.getByRole('alert').getByRole('button', { name: 'Undo' }).click();
  // A press elsewhere closes what was open.
  await expect(name).toBeHidden();
  await versions.click();
  await expect(page.getByRole('button', { name: 'Go back to two lines' })).toBeVisible();
});

test('a version waits until all is saved; without the server none is kept, and that is said', async ({ page }) => {
  const hand = await BenchHand.open(page, await drawingWith(page.request, [levelLine('one', 200)]), { tool: 'select' });
  await page.route('**/versions', (r) => (r.request().method() === 'POST' ? r.abort() : r.continue()));
  await page.getByRole('button', { name: 'Versions', exact: true }).click();
  const name = page.getByLabel('Name of the version');
  await name.fill('lost?');
  await name.press('Enter');
  await expect(page.getByText('No version was kept: The server cannot be reached.')).toBeVisible();
  // What was typed is still there to be tried again.
  await expect(name).toHaveValue('lost?');
  await page.unroute('**/versions');
  await name.press('Enter');
  await expect(page.getByRole('button', { name: 'Compare with lost?' })).toBeVisible();
  expect(await hand.lines()).toHaveLength(1);
});

test('the time line: any state is seen, compared, opened as a drawing, gone back to', async ({ page }) => {
  const lines = [levelLine('one', 200), levelLine('two', 300)];
  const hand = await BenchHand.open(page, await drawingWith(page.request, lines), { tool: 'select' });
  await hand.click({ x: 350, y: 200 });
  await page.keyboard.press('Delete');
  await hand.saved();
  await page.keyboard.press('a');
  await hand.click({ x: 150, y: 420 });
  await hand.click({ x: 450, y: 420 });
  await page.keyboard.press('Escape');
  const now = await hand.lines();
  expect(now).toHaveLength(2);

  const versions = page.getByRole('button', { name: 'Versions', exact: true });
  await versions.click();
  await page.getByLabel('Name of the version').fill('three');
  await page.getByLabel('Note to the version').fill('with a line below');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.locator('.version-note')).toHaveText('with a line below');

  const line = page.getByRole('group', { name: 'Time line' });
  const slider = line.getByRole('slider', { name: 'Moment of the history' });
  /** To where both lines were laid. */
  const toBoth = async (): Promise<void> => {
    await slider.focus();
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowRight');
  };
  await toBoth();
  await expect(line.getByRole('img')).toHaveAttribute('alt', /change \d+/);
  await expect.poll(() => line.getByRole('img').evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(100);
  await line.getByRole('button', { name: 'Compare with now' }).click();
  const pill = page.getByRole('status', { name: 'What differs' });
  await expect(pill).toContainText('1 added');
  await expect(pill).toContainText('1 gone');
  await expect(pill).toContainText('0 changed');
  // What is gone is shown where it was.
  const [r, g, b] = await hand.colourAt({ x: 350, y: 200 });
  expect(r + g + b).toBeLessThan(740);
  await pill.getByRole('button', { name: 'Done' }).click();
  await expect(pill).toBeHidden();

  await versions.click();
  await toBoth();
  await line.getByRole('button', { name: 'Go back' }).click();
  await expect.poll(async () => (await hand.lines()).map((l) => l.id)).toEqual(['one', 'two']);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.lines()).map((l) => l.id)).toEqual(now.map((l) => l.id));

  await versions.click();
  await toBoth();
  await line.getByRole('button', { name: 'Open as a drawing' }).click();
  await page.waitForURL((url) => !url.href.includes(hand.id), { timeout: 20_000 });
  const copy = page.url().split('/').at(-1)!;
  const { drawing } = await (await page.request.get(`/api/drawings/${copy}`)).json();
  expect(drawing.sheets[0].items.map((i: { id: string }) => i.id)).toEqual(['one', 'two']);
});

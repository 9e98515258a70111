import { expect, test, type Page } from '@playwright/test';
import { BenchHand, demoCopy, demoDrawing, makeDrawing } from './bench';

/** Waits until a tool is in hand. */
const inHand =
  (page: Page) =>
  (name: string): Promise<void> =>
    expect(
      page.getByRole('toolbar', { name: 'Tools' }).getByRole('button', { name: new RegExp(`\\b${name}$`) }),
    ).toHaveAttribute('aria-pressed', 'true');

test('by keys alone: sheets, tools and their options', async ({ page, request }) => {
  const id = await makeDrawing(request);
  const hand = await BenchHand.open(page, id, { tool: 'select' });
  const focusOn = async (name: string | RegExp, role: 'button' | 'combobox' | 'textbox' = 'button'): Promise<void> => {
    for (let i = 0; i < 120; i++) {
      await page.keyboard.press('Tab');
      if (await page.getByRole(role, { name }).and(page.locator(':focus')).count()) return;
    }
    throw new Error(`the keys never come to ${String(name)}`);
  };
  // A second sheet, under another name, hidden and shown.
  await focusOn('Add a sheet');
  await page.keyboard.press('Enter');
  await focusOn(/^Sheet 2/);
  await page.keyboard.press('F2');
  await page.keyboard.type('Outline');
  await page.keyboard.press('Enter');
  await focusOn('Hide Outline');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-sheet=Outline]')).toContainText('hidden');
  await page.keyboard.press('Enter');
  expect((await hand.saved()).sheets.map((s) => [s.name, s.visible])).toEqual([
    ['Sheet 1', true],
    ['Outline', true],
  ]);

  // A tool by its tile, its options by theirs.
  await focusOn('Pen');
  await page.keyboard.press('Enter');
  await focusOn('straight first');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'straight first' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Shift+Q');
  await expect(page.getByRole('button', { name: 'straight first' })).toHaveAttribute('aria-pressed', 'false');
  await focusOn('Width of the next line', 'textbox');
  await page.keyboard.type('3');
  await page.keyboard.press('Enter');
  expect((await hand.saved()).sheets[1].style.width).toBeCloseTo(4, 6);

  // How lines are seen.
  for (const [key, name] of [
    ['b', 'bare lines'],
    ['Shift+B', 'draft colours'],
    ['Shift+V', 'see-through'],
    ['z', 'loupe'],
    ['Shift+S', 'only Outline'],
  ]) {
    const chip = page.getByRole('button', { name, exact: true });
    await ((await page.locator(':focus').count()) ? page.keyboard.press('Escape') : Promise.resolve());
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press(key);
    await expect(chip).toHaveAttribute('aria-pressed', 'true');
    await page.keyboard.press(key);
    await expect(chip).toHaveAttribute('aria-pressed', 'false');
  }
});

test('a key is changed, a conflict is told and settled, and all of it can be as it was', async ({ page, request }) => {
  const hand = await BenchHand.open(page, await makeDrawing(request), { tool: 'select' });
  const closeKeys = async (): Promise<void> => {
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
  };
  const isTool = inHand(page);
  await page.keyboard.press('?');
  await page.getByRole('button', { name: /Change the key for Pen$/ }).click();
  await page.keyboard.press('k');
  await closeKeys();
  await page.keyboard.press('k');
  await isTool('Pen');
  await page.keyboard.press('?');
  await page.getByRole('button', { name: 'Change the key for Bend segments' }).click();
  await page.keyboard.press('k');
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('already stands for “Pen”');
  await page.getByRole('button', { name: 'Swap the two' }).click();
  await closeKeys();
  await page.keyboard.press('k');
  await isTool('Bend');
  await page.keyboard.press('f');
  await isTool('Pen');
  await page.reload();
  await hand.ready();
  await page.keyboard.press('k');
  await isTool('Bend');
  await page.keyboard.press('?');
  await page.getByRole('button', { name: 'As they were at first' }).click();
  await closeKeys();
  await page.keyboard.press('a');
  await isTool('Pen');
});

test('the first trace: six steps, each over when it is done; left, and called again', async ({ page, request }) => {
  const demo = await demoDrawing(request, 'Pear');
  const { id } = (await (await request.post(`/api/drawings/${demo}/duplicate`)).json()) as { id: string };
  const hand = await BenchHand.open(page, id, { tool: 'select' });
  await page.getByRole('button', { name: /^Speckles/ }).click();
  await page.getByRole('button', { name: 'Show me a first trace' }).click();
  const walk = page.getByRole('region', { name: 'First trace' });
  await expect(walk).toContainText('1 of 6');
  await page.keyboard.press('a');
  await expect(walk).toContainText('2 of 6');
  await walk.getByRole('button', { name: 'Leave' }).click();
  await expect(walk).toBeHidden();
  await page.keyboard.press('?');
  await page.getByRole('dialog').getByRole('button', { name: 'Show me a first trace' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('a');
  await expect(walk).toContainText('2 of 6');
  for (const p of [
    { x: 60, y: 620 },
    { x: 120, y: 600 },
    { x: 180, y: 640 },
  ])
    await hand.click(p);
  await expect(walk).toContainText('3 of 6');
  await hand.drag({ x: 220, y: 690 }, { x: 230, y: 720 });
  await expect(walk).toContainText('4 of 6');
  await page.keyboard.press('Enter');
  await expect(walk).toContainText('5 of 6');
  await page.keyboard.press('f');
  await hand.drag({ x: 90, y: 610 }, { x: 92, y: 590 });
  await expect(walk).toContainText('6 of 6');
  await page.keyboard.down('v');
  await page.keyboard.up('v');
  await expect(walk).toContainText('That is a first trace');
  await walk.getByRole('button', { name: 'Go on by myself' }).click();
  await expect(walk).toBeHidden();
});

test('keys stay the bench’s: after a slider, in what is being tried, in the list of lines, in a dialog', async ({
  page,
}) => {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  const hand = await BenchHand.open(page, await demoCopy(page.request, 'Pear'), { stage: 'refine', tool: 'settle' });
  const isTool = inHand(page);
  await page.keyboard.press('Control+a');
  await isTool('Settle');
  await page.keyboard.press('e');
  await page.keyboard.press('Control+a');
  await isTool('Thin out');
  const slider = page.locator('.shelf').getByRole('slider').first();
  await slider.focus();
  const dim = await slider.getAttribute('aria-valuenow');
  await page.keyboard.press('ArrowRight');
  expect(await slider.getAttribute('aria-valuenow')).not.toBe(dim);
  await page.keyboard.press('d');
  await isTool('Nodes');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('s');
  await page.keyboard.press('2');
  await page.getByRole('button', { name: /^Pear outline/ }).click();
  await page.keyboard.press('Control+Shift+a');
  await expect(page.locator('.lines-list .ant-tree-treenode-selected')).toHaveCount(0);
  await page.getByRole('tree').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.locator('.lines-list .ant-tree-treenode-selected')).toHaveCount(1);
  await page.getByRole('button', { name: 'Plan the parts' }).click();
  await page.getByRole('textbox', { name: 'Plan' }).fill('stem; leaf');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  expect(errors).toEqual([]);
  expect((await hand.saved()).sheets.some((s) => s.name === 'stem')).toBe(false);
});

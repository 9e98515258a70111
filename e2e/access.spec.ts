import { expect, test, type Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { BenchHand, demoCopy } from './bench';

/** What an independent checker finds that keeps someone from using what is shown: findings that are serious or worse. */
async function serious(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ resultTypes: ['violations'] })
    .analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)}`));
}

const clean = (page: Page, where: string) =>
  expect.poll(() => serious(page), { message: where, timeout: 8_000 }).toEqual([]);

test('home can be used by everyone', async ({ page }) => {
  await page.goto('/');
  await page.locator('.home[data-ready=true]').waitFor();
  await clean(page, 'home');
  const card = page.locator('.drawing-card').first();
  await card.hover();
  await card.getByRole('checkbox').click();
  await expect(page.getByRole('toolbar', { name: 'Drawings that are picked' })).toBeVisible();
  await clean(page, 'home, one picked');
  await page.goto('/keeping');
  await page.getByRole('button', { name: 'Back up now' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'asked for' })).toHaveCount(1);
  await clean(page, 'safe-keeping');
});

test('every stage can be used by everyone, with lines chosen and without', async ({ page, request }) => {
  test.setTimeout(120_000);
  const id = await demoCopy(request, 'Pear branch');
  await BenchHand.open(page, id, { stage: 'prepare', tool: 'place' });
  for (const key of ['1', '2', '3', '4', '5', '6']) {
    await page.keyboard.press(key);
    await clean(page, `stage ${key}`);
    await page.keyboard.press('Control+a');
    await clean(page, `stage ${key}, all chosen`);
    await page.keyboard.press('Escape');
  }
});

test('dialogs and menus can be used by everyone', async ({ page, request }) => {
  test.setTimeout(120_000);
  const id = await demoCopy(request, 'Pear branch');
  await BenchHand.open(page, id);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await clean(page, 'keys');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  for (const name of ['Compare', 'Versions', /mirrored…$/, /^Tag colour of/, /^Colour of the next line/]) {
    await page.getByRole('button', { name }).first().click();
    await clean(page, String(name));
    await page.keyboard.press('Escape');
  }
});

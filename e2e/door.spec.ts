import { expect, test } from '@playwright/test';
import { BenchHand, demoCopy } from './bench';

/** What another site, or another name for this machine, can do here: nothing. */

test('a name that is not ours reads nothing, pages and what they are made of included', async ({ page, request }) => {
  await page.goto('/');
  const script = await page.locator('script[src]').first().getAttribute('src');
  for (const path of ['/', '/api/drawings', '/api/health', script!]) {
    expect((await request.get(path)).status()).toBe(200);
    const answer = await request.get(path, { headers: { host: 'rebound.example:80' } });
    expect([path, answer.status()]).toEqual([path, 403]);
  }
  expect((await request.get('/_next/image?url=%2Ficon.svg&w=64&q=75')).status()).toBe(404);
});

test('no page can be framed, and only our own scripts run in it', async ({ page, request, baseURL }) => {
  for (const path of ['/', '/drawing/none', '/nowhere']) {
    const headers = (await request.get(path)).headers();
    expect(headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'x-frame-options': 'DENY',
      'cross-origin-resource-policy': 'same-origin',
    });
    const policy = headers['content-security-policy'];
    expect(policy).toContain("frame-ancestors 'none'");
    expect(/script-src ([^;]+)/.exec(policy)![1]).toMatch(/^'self' 'nonce-[\w-]+'$/);
  }
  await page.setContent(`<iframe src="${baseURL}/" width="600" height="400"></iframe>`);
  await expect.poll(() => page.frames()[1]?.url()).toContain('chrome-error');
});

test('all stages of the bench work under that policy', async ({ page }) => {
  const broken: string[] = [];
  page.on('console', (m) => /Content Security Policy|Refused to/.test(m.text()) && broken.push(m.text()));
  page.on('pageerror', (e) => broken.push(e.message));
  await BenchHand.open(page, await demoCopy(page.request, 'Pear'));
  for (const stage of ['1', '2', '3', '4', '6']) {
    await page.keyboard.press(stage);
    await page.waitForTimeout(800);
  }
  await page.keyboard.press('3');
  const field = page.getByRole('group', { name: 'Distance from the ink' });
  await expect(field).toHaveAttribute('data-state', 'ready', { timeout: 30_000 });
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'New from a picture' })).toBeVisible();
  expect(broken).toEqual([]);
});

import type { Page } from '@playwright/test';

/** Times from asking for a drawing, ms: its page as it was seen last (0 where it was not), the page itself, all of it sharp. */
export type Opened = { seen: number; pageSeen: number; open: number };

/** How long it takes to come from home to a drawing by its address; `seen` where it was seen here before. */
export async function opened(page: Page, id: string): Promise<Opened> {
  await page.goto('/');
  const before = performance.now();
  const since = (): number => Math.round(performance.now() - before);
  await page.goto(`/drawing/${id}`, { waitUntil: 'commit' });
  const seen = page.waitForSelector('.opening img').then(since, () => 0);
  await page.waitForSelector('[data-testid=page][data-ready=true]', { timeout: 120_000 });
  const pageSeen = since();
  await page.waitForSelector('[data-testid=page][data-sharp=true]', { timeout: 120_000 });
  const open = since();
  const first = await Promise.race([seen, Promise.resolve(0)]);
  return { seen: first, pageSeen, open };
}

import { expect, test, type Locator } from '@playwright/test';
import { BenchHand, demoCopy } from './bench';

/** The bench at 1280 x 800 in a browser that is zoomed: as many CSS px less. */
for (const [zoom, viewport] of [
  ['150 %', { width: 853, height: 533 }],
  ['200 %', { width: 640, height: 400 }],
] as const) {
  test(`zoomed to ${zoom}, nothing of the bench covers anything else`, async ({ page, request }) => {
    await page.setViewportSize(viewport);
    await BenchHand.open(page, await demoCopy(request, 'Pear branch'), { view: { scale: 0.3, x: 40, y: 60 } });
    const parts = ['.mark .title', '.save', '.stages .stage', '.top-actions button', '.pill', '.fold-tab'];
    const boxes = (
      await Promise.all(
        parts.map(async (selector) => {
          const all: Locator[] = await page.locator(`${selector}:visible`).all();
          return Promise.all(all.map(async (l) => ({ selector, ...(await l.boundingBox())! })));
        }),
      )
    ).flat();
    expect(boxes.length).toBeGreaterThan(10);
    const clashes = boxes.flatMap((a, i) =>
      boxes.slice(i + 1).flatMap((b) => {
        const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
        const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
        return across > 1 && down > 1 ? [`${a.selector} and ${b.selector}`] : [];
      }),
    );
    expect(clashes).toEqual([]);
    for (const b of boxes) expect(b.x + b.width).toBeLessThanOrEqual(viewport.width + 1);
  });
}

import type { Page } from '@playwright/test';

const FRAMES = 120;

/**
 * How the figures of distance follow a hand: in how many of the frames of a node drag they are new, how long such a frame
 * is, and how long after the release the last of them comes. All ms.
 */
export async function figuresUnderHand(page: Page, node: { x: number; y: number }): Promise<unknown> {
  await page.waitForSelector('[data-state=ready]', { timeout: 120_000 });
  await page.mouse.click(node.x, node.y);
  await page.mouse.click(node.x, node.y);
  await page.waitForTimeout(1_000);
  return page.evaluate(
    async ({ node: at, frames }) => {
      const host = document.querySelector<HTMLElement>('[data-testid=page]')!;
      host.setPointerCapture = () => undefined;
      const send = (type: string, x: number, y: number, buttons: number) =>
        host.dispatchEvent(
          new PointerEvent(type, {
            clientX: x,
            clientY: y,
            button: type === 'pointermove' ? -1 : 0,
            buttons,
            pointerId: 1,
            pointerType: 'mouse',
            bubbles: true,
            cancelable: true,
          }),
        );
      let news = 0;
      let last = 0;
      const table = document.querySelector('table.figures')!;
      new MutationObserver(() => {
        news++;
        last = performance.now();
      }).observe(table, { subtree: true, characterData: true, childList: true });
      send('pointermove', at.x, at.y, 0);
      send('pointerdown', at.x, at.y, 1);
      let [fresh, before] = [0, performance.now()];
      const lengths: number[] = [];
      for (let i = 1; i <= frames; i++) {
        const seen = news;
        send('pointermove', at.x + 10 * Math.sin(i / 8), at.y + 10 * (1 - Math.cos(i / 8)), 1);
        const now = await new Promise<number>((done) => requestAnimationFrame(done));
        lengths.push(now - before);
        before = now;
        if (news > seen) fresh++;
      }
      const released = performance.now();
      send('pointerup', at.x + 10 * Math.sin(frames / 8), at.y + 10 * (1 - Math.cos(frames / 8)), 0);
      await new Promise((done) => setTimeout(done, 350));
      return {
        frames,
        framesWithNewFigures: fresh,
        meanFrame: Math.round((10 * lengths.reduce((a, b) => a + b, 0)) / frames) / 10,
        lastFigureAfterRelease: Math.round(Math.max(0, last - released)),
      };
    },
    { node, frames: FRAMES },
  );
}

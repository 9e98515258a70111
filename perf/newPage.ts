import type { Browser, Page } from '@playwright/test';

declare global {
  /** Sends an event of a mouse to the page: a place in the window, the buttons that are down, and the one it is of. */
  var sendPointer: (type: string, x: number, y: number, buttons: number, button?: number) => void;
}

/** A page of the window's usual size, into which functions can be sent, and which has a pointer for them. */
export async function newPage(browser: Browser, baseURL: string): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL, bypassCSP: true });
  // The bundler wraps functions in a call of this name.
  await page.addInitScript('globalThis.__name = (f) => f');
  await page.addInitScript(() => {
    globalThis.sendPointer = (type, x, y, buttons, button = type === 'pointermove' ? -1 : 0) => {
      const host = document.querySelector<HTMLElement>('[data-testid=page]')!;
      host.setPointerCapture = () => undefined;
      const mouse = { pointerId: 1, pointerType: 'mouse', bubbles: true, cancelable: true };
      host.dispatchEvent(new PointerEvent(type, { ...mouse, clientX: x, clientY: y, button, buttons }));
    };
  });
  return page;
}

import type { Page } from '@playwright/test';

/**
 * Times from asking for a drawing, ms: its page as it was seen last here, or else with its reference, while the program is on its way;
 * all its lines, sharp, there or on the page itself; the page itself, as it can be worked on; that with its reference; all of it
 * sharp. Each as of the frame that shows it, its raster counted.
 */
export type Opened = { seen: number; linesSeen: number; pageSeen: number; referenceSeen: number; open: number };

declare global {
  var whenOpened: Partial<Record<keyof Opened, number>>;
}

const watched = new WeakSet<Page>();

/** How long it takes to come from home to a drawing by its address. */
export async function opened(page: Page, id: string): Promise<Opened> {
  if (!watched.has(page)) await page.addInitScript(watch);
  watched.add(page);
  await page.goto('/');
  const before = performance.timeOrigin + performance.now();
  await page.goto(`/drawing/${id}`, { waitUntil: 'commit' });
  await page.waitForFunction(() => globalThis.whenOpened.open, null, { timeout: 120_000 });
  // Where there is none it is not waited for.
  await page
    .waitForFunction(() => globalThis.whenOpened.referenceSeen, null, { timeout: 2_000 })
    .catch(() => undefined);
  const at = await page.evaluate(() => globalThis.whenOpened);
  const since = (kind: keyof Opened): number => (at[kind] ? Math.round(at[kind] - before) : 0);
  return {
    seen: since('seen'),
    linesSeen: since('linesSeen'),
    pageSeen: since('pageSeen'),
    referenceSeen: since('referenceSeen'),
    open: since('open'),
  };
}

/** Runs inside the page, before all else: looking on from outside would be late by as long as between two looks. */
function watch(): void {
  const found: typeof globalThis.whenOpened = (globalThis.whenOpened = {});
  const note = (kind: keyof Opened): void => void (found[kind] ??= performance.timeOrigin + performance.now());
  /** Once what has been told is in a frame, and that is painted. */
  const afterFrame = (run: () => void): void => void requestAnimationFrame(() => setTimeout(run, 0));
  const host = (): HTMLElement | null => document.querySelector<HTMLElement>('[data-testid=page]');
  const row = (): Uint8ClampedArray => {
    const canvas = host()!.querySelector('canvas')!;
    return canvas.getContext('2d')!.getImageData(0, canvas.height >> 1, canvas.width, 1).data;
  };
  /** What a row of the page shows: nothing yet, its paper, rgb(255, 254, 251), or the reference, which lies on all of it. */
  const look = (): void => {
    const pixels = row();
    let isPaper = false;
    for (let i = 0; i < pixels.length; i += 4)
      isPaper ||= pixels[i] === 255 && pixels[i + 1] === 254 && pixels[i + 2] === 251;
    const isPainted = pixels[3] === 255;
    if (isPainted) note('pageSeen');
    if (isPainted && !isPaper) return note('referenceSeen');
    afterFrame(look);
  };
  let isAsked = { seen: false, linesSeen: false, pageSeen: false, open: false };
  const check = (): void => {
    const { ready, sharp } = host()?.dataset ?? {};
    const before = document.querySelector('.opening .seen:not(:empty)') ?? document.querySelector('.opening .paper');
    const covered = [...(before?.querySelectorAll('img') ?? [])];
    const isThere = {
      seen: covered.length > 0 && covered.every((img) => img.complete),
      linesSeen: sharp === 'true' || document.querySelector('.opening .lines canvas') !== null,
      pageSeen: ready === 'true',
      open: sharp === 'true',
    };
    for (const kind of ['seen', 'linesSeen', 'pageSeen', 'open'] as const) {
      if (!isThere[kind] || isAsked[kind]) continue;
      isAsked = { ...isAsked, [kind]: true };
      afterFrame(() => {
        if (kind === 'pageSeen') return look();
        if (kind === 'open') row();
        note(kind);
      });
    }
  };
  new MutationObserver(check).observe(document, { attributes: true, childList: true, subtree: true });
  // Pictures come without a change of the page.
  document.addEventListener('load', check, true);
}

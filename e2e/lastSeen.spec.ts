import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import type { Drawing } from '../src/core';
import { changeOf } from '../src/core/change/changeOf';
import { setReference } from '../src/core/edits/references';
import { pictures } from '../demo/pictures';
import { BenchHand, drawingWith, levelLine, makeDrawing } from './bench';

/** All of the program but the painter that a page has begin by itself. */
const program = /\/_next\/(?!.*\/painter-).*\.js/;

/** Holds back what is asked for, until it is let go. */
async function heldBack(page: Page, what: string | RegExp): Promise<() => void> {
  let letGo = (): void => undefined;
  const until = new Promise<void>((r) => (letGo = r));
  await page.route(what, async (route) => {
    await until;
    await route.continue().catch(() => undefined);
  });
  return letGo;
}

/** The window's colours without its pills, softened: what is scaled another way is not otherwise. */
async function greys(page: Page, clip: { x: number; y: number; width: number; height: number }): Promise<Buffer> {
  return sharp(await page.screenshot({ clip }))
    .greyscale()
    .blur(2)
    .raw()
    .toBuffer();
}

/** Whether a line is seen in the middle of the window. */
const isInked = async (page: Page): Promise<boolean> =>
  (await greys(page, { x: 260, y: 130, width: 740, height: 500 })).some((v) => v < 150);

const opened = (page: Page) => page.locator('[data-testid=page][data-ready=true]').waitFor();

test('while a drawing is on its way its page is seen as it was seen last, in its place', async ({ page, request }) => {
  const hand = await BenchHand.open(page, await drawingWith(request, [levelLine('a', 200), levelLine('b', 320)]));
  const { x, y, width, height } = (await page.getByTestId('page').boundingBox())!;
  const kept = (id: string) => page.evaluate((key) => localStorage.getItem(key) ?? '', `yellow-quill:last-seen:${id}`);
  await expect.poll(async () => (await kept(hand.id)).length).toBeGreaterThan(500);
  const first = await kept(hand.id);
  await page.mouse.move(x + width / 3, y + height / 3);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -200);
  await page.keyboard.up('Control');
  // As it is after the zoom.
  await expect.poll(() => kept(hand.id)).not.toBe(first);
  // Without the pills over it.
  const clip = { x: x + width * 0.2, y: y + height * 0.2, width: width * 0.6, height: height * 0.6 };
  const before = await greys(page, clip);
  const letGo = await heldBack(page, `**/${hand.id}/packed`);
  const letRun = await heldBack(page, '**/*.js');
  await page.reload({ waitUntil: 'commit' });
  const picture = page.locator('.opening img');
  await expect(picture).toBeVisible();
  expect(await picture.boundingBox()).toEqual({ x, y, width, height });
  await picture.evaluate((img: HTMLImageElement) => img.decode());
  const meanwhile = await greys(page, clip);
  const off = before.reduce((n, v, i) => n + (Math.abs(v - meanwhile[i]) > 40 ? 1 : 0), 0);
  expect(off / before.length).toBeLessThan(0.01);
  expect(before.some((v) => v < 150)).toBe(true);
  // All of that before any of the program had come; it is still there when the program waits for the drawing.
  letRun();
  await expect.poll(() => page.workers().length).toBeGreaterThan(0);
  await expect(picture).toBeVisible();
  await expect(page.getByText('Laying out the drawing')).toBeHidden();
  letGo();
  await opened(page);
  await expect(page.locator('.opening')).toBeHidden();
});

test('one that was never seen here is seen as its paper; one that is not there is on its way, and then told to be missing', async ({
  page,
  request,
}) => {
  const id = await makeDrawing(request);
  const letGo = await heldBack(page, `**/${id}/packed`);
  await page.goto(`/drawing/${id}`, { waitUntil: 'commit' });
  await expect(page.locator('.opening .paper')).toBeVisible();
  await expect(page.getByText('Laying out the drawing')).toBeHidden();
  letGo();
  await opened(page);
  await expect(page.locator('.opening')).toBeHidden();
  const tell = await heldBack(page, '**/nothingthere/packed');
  await page.goto('/drawing/nothingthere', { waitUntil: 'commit' });
  await expect(page.getByText('Laying out the drawing')).toBeVisible();
  tell();
  await expect(page.getByText('There is no such drawing')).toBeVisible();
  await expect(page.locator('.opening')).toBeHidden();
});

for (const [how, view] of [
  ['whole', null],
  ['as it was left', { scale: 0.9, x: -80, y: 40 }],
] as const)
  test(`one that was never seen here is seen as its paper and the picture under the work before the program has come: ${how}`, async ({
    page,
    request,
  }) => {
    const id = await makeDrawing(request);
    await request.post(`/api/drawings/${id}/references?name=pear.png`, { data: await pictures.pear() });
    const answer = await request.get(`/api/drawings/${id}`);
    const { drawing, revision } = (await answer.json()) as { drawing: Drawing; revision: number };
    const turned = setReference(drawing, drawing.references[0].id, { turn: 20, flipX: true }, 'Turn picture');
    const changes = [changeOf(turned, 'turned')];
    expect((await request.post(`/api/drawings/${id}/changes`, { data: { base: revision, changes } })).ok()).toBe(true);
    await page.addInitScript(([key, session]) => session && localStorage.setItem(key, session), [
      `yellow-quill:session:${id}`,
      view && JSON.stringify({ view, stage: 'trace', tool: 'pen' }),
    ] as const);
    const letRun = await heldBack(page, '**/*.js');
    await page.goto(`/drawing/${id}`, { waitUntil: 'commit' });
    const picture = page.locator('.opening .paper img');
    await expect(picture).toBeVisible();
    await picture.evaluate((img: HTMLImageElement) => img.decode());
    await expect(page.getByText('Laying out the drawing')).toBeHidden();
    const clip = { x: 260, y: 130, width: 740, height: 500 };
    const before = await greys(page, clip);
    letRun();
    await page.locator('[data-testid=page][data-sharp=true]').waitFor();
    await expect(picture).toBeHidden();
    const after = await greys(page, clip);
    const off = before.reduce((n, v, i) => n + (Math.abs(v - after[i]) > 12 ? 1 : 0), 0);
    expect(off / before.length).toBeLessThan(0.005);
    expect(new Set(before).size).toBeGreaterThan(20);
  });

test('a page has its painter begin by itself, and the drawing is asked for once', async ({ page, request }) => {
  const id = await drawingWith(request, [levelLine('a', 200), levelLine('b', 320)]);
  const asked: string[] = [];
  page.on('request', (r) => asked.push(new URL(r.url()).pathname));
  const letRun = await heldBack(page, '**/*.js');
  await page.goto(`/drawing/${id}`, { waitUntil: 'commit' });
  await expect.poll(() => asked.filter((path) => /\/painter-/.test(path))).toHaveLength(1);
  letRun();
  await page.locator('[data-testid=page][data-sharp=true]').waitFor();
  expect(asked.filter((path) => path.endsWith('/packed'))).toHaveLength(1);
  expect(await isInked(page)).toBe(true);
});

for (const draft of [false, true])
  test(`its lines are seen before the program has come, as they are seen then${draft ? ', in draft too' : ''}`, async ({
    page,
    request,
  }) => {
    const id = await drawingWith(request, [levelLine('a', 200), levelLine('b', 320)]);
    const kept = JSON.stringify({ state: { draft }, version: 1 });
    await page.addInitScript((text) => localStorage.setItem('yellow-quill-preferences', text), kept);
    const letRun = await heldBack(page, program);
    await page.goto(`/drawing/${id}`, { waitUntil: 'commit' });
    await expect(page.locator('.opening .lines canvas')).toBeVisible();
    const shot = async () => sharp(await page.screenshot({ clip: { x: 260, y: 130, width: 740, height: 500 } }));
    const before = await (await shot()).removeAlpha().raw().toBuffer();
    letRun();
    await page.locator('[data-testid=page][data-sharp=true]').waitFor();
    await expect(page.locator('.opening')).toBeHidden();
    const after = await (await shot()).removeAlpha().raw().toBuffer();
    const off = before.reduce((n, v, i) => n + (Math.abs(v - after[i]) > 12 ? 1 : 0), 0);
    expect(off / before.length).toBeLessThan(0.001);
    const darkest = before.indexOf(before.reduce((least, v) => Math.min(least, v), 255));
    const pixel = 3 * Math.floor(darkest / 3);
    // Ink is grey; a sheet's tag has a colour.
    expect(Math.max(...before.subarray(pixel, pixel + 3)) > 100).toBe(draft);
  });

test('what was painted before the program has come is what the bench shows, from its first frame on', async ({
  page,
  request,
}) => {
  const id = await drawingWith(request, [levelLine('a', 200), levelLine('b', 320)]);
  // Its middle, three tiles wide.
  const session = JSON.stringify({ view: { scale: 2, x: -900, y: -300 }, stage: 'trace', tool: 'pen' });
  await page.addInitScript(
    ([key, text]) => {
      localStorage.setItem(key, text);
      const told: string[] = [];
      Object.assign(globalThis, { told });
      new MutationObserver(() => {
        const sharp = document.querySelector<HTMLElement>('[data-testid=page]')?.dataset.sharp;
        if (!sharp || sharp === told.at(-1)) return;
        told.push(sharp);
        // When that frame is over.
        setTimeout(() => {
          const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=page] canvas')!;
          if (canvas.getContext('2d')!.getImageData(400, 300, 1, 1).data[3] === 0) told.push('empty');
        }, 0);
      }).observe(document, { attributeFilter: ['data-sharp'], subtree: true });
    },
    [`yellow-quill:session:${id}`, session] as const,
  );
  const letRun = await heldBack(page, program);
  await page.goto(`/drawing/${id}`, { waitUntil: 'commit' });
  await expect(page.locator('.opening .lines canvas')).toBeVisible();
  letRun();
  await page.locator('[data-testid=page][data-sharp=true]').waitFor();
  await expect(page.locator('.opening')).toBeHidden();
  expect(await page.evaluate(() => (globalThis as unknown as { told: string[] }).told)).toEqual(['true']);
});

for (const what of ['painter-*.js', 'packed'] as const)
  test(`where a page’s own painter cannot begin the drawing opens all the same: without ${what}`, async ({
    page,
    request,
  }) => {
    const id = await drawingWith(request, [levelLine('a', 200), levelLine('b', 320)]);
    let failed = 0;
    await page.route(`**/${what}`, (route) => (failed++ === 0 ? route.abort() : route.continue()));
    await page.goto(`/drawing/${id}`);
    await page.locator('[data-testid=page][data-sharp=true]').waitFor();
    expect(failed).toBeGreaterThan(0);
    expect(await isInked(page)).toBe(true);
  });

test('a drawing that is left while it opens, for another, leaves nothing behind', async ({ page, request }) => {
  const left = await drawingWith(request, [levelLine('a', 200), levelLine('b', 320)]);
  const other = await makeDrawing(request, 'Other');
  // All of the program comes but the bench.
  let letRun = (): void => undefined;
  const until = new Promise<void>((r) => (letRun = r));
  await page.route('**/*.js', async (route) => {
    const response = await route.fetch();
    if ((await response.text()).includes('Sheets and references')) await until;
    await route.fulfill({ response });
  });
  const brought = page.waitForResponse(`**/${left}/packed`);
  await page.goto(`/drawing/${left}`, { waitUntil: 'commit' });
  await (await brought).finished();
  type Routed = { next?: { router?: { push(path: string): void } } };
  await expect.poll(() => page.evaluate(() => !!(window as unknown as Routed).next?.router)).toBe(true);
  await page.evaluate((path) => (window as unknown as Routed).next!.router!.push(path), `/drawing/${other}`);
  await page.waitForURL(`**/drawing/${other}`, { waitUntil: 'commit' });
  letRun();
  await page.locator('[data-testid=page][data-sharp=true]').waitFor();
  await expect(page.locator('.top-bar').getByText('Other')).toBeVisible();
  expect(await isInked(page)).toBe(false);
  await page.unrouteAll({ behavior: 'ignoreErrors' });
});

import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { practiceSvg } from '../src/workers/practiceSvg';
import { BenchHand, drawingWith, levelLine, makeDrawing } from './bench';

/** Whatever the server or the browser will not have: the drawing opens, and what was drawn is there. */

/** What the bench has to tell. */
const told = (page: Page) => page.locator('.message[role="alert"]');

const lay = async (hand: BenchHand, page: Page, y: number): Promise<void> => {
  await hand.click({ x: 100, y });
  await hand.click({ x: 300, y });
  await page.keyboard.press('Enter');
};

test('what a drawing cannot hold is refused when it is made, with words, and work goes on', async ({ page }) => {
  const hand = await BenchHand.open(page, await drawingWith(page.request, [levelLine('a', 100), levelLine('b', 150)]), {
    tool: 'select',
  });
  const far = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L90000000 5" stroke="#000"/></svg>';
  await hand.paste(far);
  await expect(told(page)).toContainText('further out than a drawing reaches');
  await page.keyboard.press('Control+a');
  for (let i = 0; i < 22; i++) await page.keyboard.press('Shift+g');
  await expect(told(page)).toContainText('no deeper');
  await page.keyboard.press('a');
  await lay(hand, page, 300);
  expect(await hand.lines()).toHaveLength(3);
  await page.reload();
  await hand.ready();
  expect(await hand.lines()).toHaveLength(3);
});

test('changes that the server refuses are put aside whole; what is drawn meanwhile is not begun', async ({ page }) => {
  const id = await makeDrawing(page.request, 'Refused');
  const hand = await BenchHand.open(page, id);
  await lay(hand, page, 100);
  await hand.saved();
  let release = (): void => {};
  const held = new Promise<void>((done) => (release = done));
  await page.route('**/changes', (r) =>
    r.fulfill({ status: 422, json: { error: { code: 'does-not-fit', message: 'It does not fit.' } } }),
  );
  await page.route('**/aside', async (r) => {
    await held;
    await r.continue();
  });
  await lay(hand, page, 200);
  await expect(page.getByRole('status').filter({ hasText: 'being put aside' })).toBeVisible();
  await lay(hand, page, 300);
  release();
  await expect(told(page)).toContainText('kept as “Refused (kept aside)”');
  await page.unroute('**/changes');
  await page.getByRole('button', { name: 'Go on from the newest' }).click();
  await expect(page.locator('.message.reading')).toHaveCount(0);
  await lay(hand, page, 400);
  await expect.poll(async () => (await hand.lines()).map((l) => l.runs[0].nodes[0].point.y)).toEqual([100, 400]);
  const { drawings } = await (await page.request.get('/api/drawings')).json();
  const aside = drawings.find((d: { title: string }) => d.title === 'Refused (kept aside)');
  const { drawing } = await (await page.request.get(`/api/drawings/${aside.id}`)).json();
  expect(drawing.sheets[0].items[1].runs[0].nodes.map((n: { point: { y: number } }) => n.point.y)).toContain(200);
});

test('not even aside: the drawing opens all the same, and the changes are offered as a file', async ({ page }) => {
  const id = await makeDrawing(page.request, 'Stuck');
  const hand = await BenchHand.open(page, id);
  await lay(hand, page, 100);
  await hand.saved();
  const refuse = { status: 422, json: { error: { code: 'does-not-fit', message: 'It does not fit.' } } };
  await page.route('**/changes', (r) => r.fulfill(refuse));
  await page.route('**/aside', (r) => r.fulfill(refuse));
  await lay(hand, page, 200);
  await expect(told(page)).toContainText('could not be kept on the server: It does not fit.');
  page.on('dialog', (d) => void d.accept());
  await page.reload();
  await hand.ready();
  expect(await page.locator('.message.reading').count()).toBe(0);
  await expect(told(page)).toContainText('still in this browser');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a file' }).click(),
  ]);
  const file = JSON.parse(await readFile(await download.path(), 'utf8'));
  expect(file).toMatchObject({ drawing: id, title: 'Stuck', why: 'It does not fit.' });
  expect(file.changes.map((c: { label: string }) => c.label)).toContain('Start line');
  await page.getByRole('button', { name: 'Forget them here' }).click();
  await page.unrouteAll();
  await lay(hand, page, 300);
  expect((await hand.lines()).map((l) => l.runs[0].nodes[0].point.y)).toEqual([100, 300]);
  await page.reload();
  await hand.ready();
  await expect(told(page)).toHaveCount(0);

  // The file is read again: the drawing as it was then, with what is in it.
  await page.goto('/');
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Open a package' }).click(),
  ]);
  await chooser.setFiles({
    name: 'Stuck (changes).json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(file)),
  });
  await expect(page.locator('.mark .title')).toHaveText('Stuck (kept aside)');
  await expect(page.locator('.stages')).toContainText('2 lines');
});

test('a server that cannot save just now: the drawing opens for reading, and goes on when it can', async ({ page }) => {
  const id = await makeDrawing(page.request, 'Waiting');
  const hand = await BenchHand.open(page, id);
  await page.route('**/changes', (r) =>
    r.fulfill({ status: 500, json: { error: { code: 'failed', message: 'No.' } } }),
  );
  await lay(hand, page, 200);
  await expect(page.locator('.save')).toHaveAttribute('data-save', 'waiting');
  const asked = new Promise<string>((done) =>
    page.once('dialog', (d) => {
      done(d.type());
      void d.accept();
    }),
  );
  await page.reload();
  expect(await asked).toBe('beforeunload');
  await hand.ready();
  await expect(page.getByRole('status').filter({ hasText: 'could not be sent yet' })).toBeVisible();
  await page.unroute('**/changes');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.locator('.message.reading')).toHaveCount(0);
  expect(await hand.lines()).toHaveLength(1);
});

test('a browser without a store of its own opens a drawing, says so, and saves', async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'indexedDB', {
      value: {
        open: () => {
          throw new DOMException('not in this window', 'SecurityError');
        },
      },
    });
  });
  const hand = await BenchHand.open(page, await makeDrawing(page.request));
  await expect(told(page)).toContainText('This browser keeps nothing');
  await lay(hand, page, 100);
  expect(await hand.lines()).toHaveLength(1);
});

test('a long change is there after a reload in the moment in which it was made, before it was seen or sent', async ({
  page,
  request,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(request));
  await page.evaluate(() => {
    // No frame comes any more in which it could be seen.
    window.requestAnimationFrame = () => 0;
    const save = document.querySelector<HTMLElement>('.save')!;
    new MutationObserver(() => save.dataset.save !== 'saved' && location.reload()).observe(save, {
      attributeFilter: ['data-save'],
    });
  });
  let sent = 0;
  await page.route('**/changes', (route) => (sent++, route.abort()));
  await Promise.all([page.waitForEvent('load'), hand.paste(practiceSvg(600))]);
  expect(sent).toBe(0);
  await page.unroute('**/changes');
  await hand.ready();
  await expect.poll(async () => (await hand.lines()).length).toBe(600);
});

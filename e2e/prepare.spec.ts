import { linesOf } from '../src/core/drawing/items';
import { expect, test } from '@playwright/test';
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import type { Drawing } from '../src/core';
import { sharesToPage } from '../src/core/drawing/placement';
import { shotOf } from '../src/server/simulated/pictures/shots';
import { snailPhoto } from '../src/server/simulated/pictures/snailPhoto';
import { BenchHand, makeDrawing, near } from './bench';

test('a photo: dropped, straightened by its corners, its light evened, its levels pulled, the page given a size, and traced over', async ({
  page,
  request,
}) => {
  test.setTimeout(150_000);
  const shot = shotOf(3, { width: 1400, height: 1050 });
  const photo = await snailPhoto(shot);
  const hand = await BenchHand.open(page, await makeDrawing(request), {
    stage: 'prepare',
    tool: 'place',
    view: { scale: 0.7, x: 40, y: 40 },
  });
  const drop = await page.evaluateHandle(
    (b) => {
      const data = new DataTransfer();
      data.items.add(new File([new Uint8Array(b)], 'snail photo.jpg', { type: 'image/jpeg' }));
      return data;
    },
    [...photo],
  );
  await page.locator('main.page-view').dispatchEvent('drop', { dataTransfer: drop });
  await expect(page.locator('[data-reference="snail photo.jpg"]')).toBeVisible({ timeout: 30_000 });
  const reference = async () => (await hand.saved()).references[0];
  const correction = async (kind: string) => (await reference()).corrections.find((c) => c.kind === kind);

  // The corners are found by the program, within a few pixels of where they are.
  await page.getByRole('button', { name: 'Corners' }).click();
  await expect.poll(() => correction('straighten'), { timeout: 30_000 }).toBeTruthy();
  const found = (await correction('straighten')) as Extract<
    Drawing['references'][0]['corrections'][0],
    { kind: 'straighten' }
  >;
  found.corners.forEach((p, i) => near({ x: p.x * 1400, y: p.y * 1050 }, shot.corners[i], 5));

  // One is dragged away by hand, and taken back.
  const fitted = { at: { x: 0, y: 0 }, width: 800, height: 600 };
  const onPage = (p: { x: number; y: number }) =>
    sharesToPage({ ...fitted, turn: 0, flipX: false, flipY: false } as never, p);
  const corner = onPage(found.corners[0]);
  await hand.drag(corner, { x: corner.x + 30, y: corner.y + 20 });
  const dragged = (await correction('straighten')) as typeof found;
  near({ x: dragged.corners[0].x * 800, y: dragged.corners[0].y * 600 }, { x: corner.x + 30, y: corner.y + 20 }, 2);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Place', exact: true })).toHaveAttribute('aria-pressed', 'true');

  // Light and levels: the corner that was dark becomes paper, by what is seen on the page.
  await page.getByRole('switch', { name: 'Even light' }).click();
  await page.getByRole('switch', { name: 'Ink and paper' }).click();
  await expect.poll(() => correction('levels')).toBeTruthy();
  const plot = (await page.getByTestId('levels').boundingBox())!;
  const markAt = (tone: number) => ({ x: plot.x + 6 + 1 + (tone / 255) * 190, y: plot.y + 92 - 16 + 8 });
  const from = markAt(255);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(markAt(215).x, from.y, { steps: 6 });
  await page.mouse.up();
  await expect
    .poll(async () => Math.abs(((await correction('levels')) as unknown as { white: number }).white - 215))
    .toBeLessThan(4);
  const placed = await reference();
  await page.keyboard.press('Escape');
  const dim = page.getByRole('slider', { name: 'Dim of snail photo.jpg' });
  await dim.focus();
  await page.keyboard.press('Home');
  await expect.poll(async () => (await reference()).dim).toBe(0);
  for (const share of [
    { x: 0.93, y: 0.93 },
    { x: 0.93, y: 0.07 },
    { x: 0.1, y: 0.93 },
  ]) {
    await expect
      .poll(async () => Math.min(...(await hand.colourAt(sharesToPage(placed, share)))), { timeout: 15_000 })
      .toBeGreaterThan(225);
  }

  // A real print size; then the pen over it.
  await page.getByRole('combobox', { name: 'Page size' }).click();
  await page.getByTitle('A5', { exact: true }).click();
  await expect.poll(async () => Math.round((await hand.saved()).page.width)).toBe(794);
  const { picture, pixelWidth } = await reference();
  expect(pixelWidth).toBe(1400);
  await page.keyboard.press('a');
  await hand.click({ x: 100, y: 100 });
  await hand.click({ x: 240, y: 150 });
  await page.keyboard.press('Enter');
  expect(await hand.nodes()).toHaveLength(2);

  // What came is kept as it came.
  const original = await (await request.get(`/api/pictures/${picture}?size=original`)).body();
  expect(original.equals(photo)).toBe(true);
  expect(createHash('sha256').update(photo).digest('hex')).toBe(picture);
});

test('ink is pulled as a start: previewed, crumbs dropped, laid on the page as lines in a folder of their own, and taken back', async ({
  page,
  request,
}) => {
  test.setTimeout(150_000);
  const hand = await BenchHand.open(page, await makeDrawing(request), {
    stage: 'prepare',
    tool: 'pull',
    view: { scale: 0.7, x: 40, y: 40 },
  });
  const strokes = ['M60 80 C200 20 300 200 520 120', 'M100 300 C200 260 380 360 540 300', 'M300 420 L309 421'];
  const sketch = await sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="600"><rect width="800" height="600" fill="#f3f1ea"/>${strokes
        .map((d) => `<path d="${d}" fill="none" stroke="#444" stroke-width="7" stroke-linecap="round"/>`)
        .join('')}</svg>`,
    ),
  )
    .png()
    .toBuffer();
  await request.post(`/api/drawings/${hand.id}/references?name=sketch.png`, { data: sketch });
  await page.reload();
  await hand.ready();
  await page.getByRole('button', { name: 'Pull ink' }).click();
  await page.getByRole('button', { name: 'Pull lines' }).click();
  await expect(page.getByRole('group', { name: 'Pull ink' })).toContainText('3 of 3', { timeout: 60_000 });
  // The crumb is dropped by drawing around it.
  await hand.move({ x: 285, y: 400 });
  await page.mouse.down();
  for (const p of [
    { x: 330, y: 400 },
    { x: 330, y: 445 },
    { x: 285, y: 445 },
    { x: 285, y: 405 },
  ])
    await hand.move(p);
  await page.mouse.up();
  await expect(page.getByRole('group', { name: 'Pull ink' })).toContainText('2 of 3');
  expect(await hand.lines()).toHaveLength(0);
  await page.getByRole('button', { name: 'Lay them on the page' }).click();
  const drawing = await hand.saved();
  const sheet = drawing.sheets.find((s) => s.name === 'Strokes')!;
  expect(drawing.folders.map((f) => f.name)).toEqual(['Ink of sketch.png']);
  expect(sheet.folder).toBe(drawing.folders[0].id);
  expect(linesOf(sheet)).toHaveLength(2);
  const ends = linesOf(sheet).flatMap((l) => [l.runs[0].nodes[0].point, l.runs[0].nodes.at(-1)!.point]);
  for (const wanted of [
    { x: 60, y: 80 },
    { x: 520, y: 120 },
    { x: 100, y: 300 },
    { x: 540, y: 300 },
  ])
    expect(Math.min(...ends.map((p) => Math.hypot(p.x - wanted.x, p.y - wanted.y)))).toBeLessThan(4);
  for (const l of linesOf(sheet)) expect(Math.abs(l.style.width - 7)).toBeLessThan(1.5);
  await page.keyboard.press('Control+z');
  expect((await hand.saved()).folders).toEqual([]);
});

test('a page is scanned: with its progress, stopped, jammed, and in the end laid under the work at its true size', async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const hand = await BenchHand.open(page, await makeDrawing(request), { stage: 'prepare', tool: 'place' });
  await page.getByRole('button', { name: 'Scan a page' }).click();
  const dialog = page.getByRole('dialog');
  const onGlass = async (name: string): Promise<void> => {
    await dialog.getByRole('combobox', { name: 'Page on the glass' }).click();
    await page.getByTitle(new RegExp(`^${name}`)).click();
  };
  await onGlass('A crumpled sheet');
  await dialog.getByRole('button', { name: 'Scan', exact: true }).click();
  await expect(dialog.getByRole('alert')).toContainText('stuck in the scanner', { timeout: 30_000 });
  await onGlass('Snail');
  await dialog.getByRole('slider', { name: 'Scanner resolution' }).focus();
  await page.keyboard.press('Home');
  await dialog.getByRole('button', { name: 'Scan', exact: true }).click();
  await expect(dialog.getByRole('progressbar')).toBeVisible();
  await dialog.getByRole('button', { name: 'Stop the scan' }).click();
  await expect(dialog.getByRole('button', { name: 'Scan', exact: true })).toBeVisible();
  expect((await hand.saved()).references).toHaveLength(0);
  await dialog.getByRole('button', { name: 'Scan', exact: true }).click();
  await expect(page.locator('[data-reference^="Snail"]')).toBeVisible({ timeout: 60_000 });
  const [r] = (await hand.saved()).references;
  expect(r.dpi).toBe(75);
  // It lay askew on the glass: found, and turned back.
  await page.getByRole('switch', { name: 'Turn' }).click();
  await expect
    .poll(
      async () => {
        const turn = (await hand.saved()).references[0].corrections.find((c) => c.kind === 'turn');
        return turn?.kind === 'turn' ? turn.degrees : 0;
      },
      { timeout: 20_000 },
    )
    .toBeCloseTo(-2.3, 0);
  // Unlocked, it is laid out by figures: actual size by its dpi, flipped, turned.
  await page.getByRole('button', { name: /^Unlock Snail/ }).click();
  await page.getByRole('button', { name: 'Actual size' }).click();
  await page.getByRole('button', { name: 'Flip ↔' }).click();
  const turn = page.getByRole('textbox', { name: 'Turn of the picture' });
  await turn.fill('45 + 45');
  await turn.press('Enter');
  const laid = (await hand.saved()).references[0];
  expect([laid.flipX, laid.turn]).toEqual([true, 90]);
  await expect(page.getByRole('textbox', { name: 'Resolution of the picture' })).toHaveValue('75');
});

test('the camera: several shots, the best is kept', async ({ page, request }) => {
  test.setTimeout(120_000);
  const hand = await BenchHand.open(page, await makeDrawing(request), { stage: 'prepare', tool: 'place' });
  await page.getByRole('button', { name: 'Take a picture with a camera' }).click();
  const shots = page.getByRole('list', { name: 'Pictures taken' }).getByRole('listitem');
  await page.getByRole('button', { name: 'Take a picture', exact: true }).click();
  await expect(shots).toHaveCount(1, { timeout: 30_000 });
  await page.getByRole('button', { name: 'Take another' }).click();
  await expect(shots).toHaveCount(2, { timeout: 30_000 });
  await page.getByRole('button', { name: 'Picture 2, to be kept' }).click();
  await page.getByRole('button', { name: 'Picture 1', exact: true }).click();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.locator('[data-reference="photo 1.jpg"]')).toBeVisible({ timeout: 30_000 });
  expect((await hand.saved()).references.map((r) => r.name)).toEqual(['photo 1.jpg']);
});

test('the parts are planned in one go, put into folders by hand, boxed, and their state is counted', async ({
  page,
  request,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(request), {
    stage: 'prepare',
    tool: 'place',
    view: { scale: 0.7, x: 40, y: 40 },
  });
  await page.getByRole('button', { name: 'Plan the parts' }).click();
  await page.getByRole('textbox', { name: 'Plan' }).fill('stem; leaves: left, right; pear');
  await page.getByRole('button', { name: 'Add 4 sheets' }).click();
  const fromTop = async () => {
    const d = await hand.saved();
    return d.sheets.toReversed().map((s) => `${d.folders.find((f) => f.id === s.folder)?.name ?? ''}/${s.name}`);
  };
  expect(await fromTop()).toEqual(['/stem', 'leaves/left', 'leaves/right', '/pear', '/Sheet 1']);
  await expect(page.locator('.stages')).toContainText('0 of 5 parts');
  await page.getByRole('button', { name: 'Mark left working, now to do' }).click();
  await page.getByRole('button', { name: 'Mark left traced, now working' }).click();
  await expect(page.locator('.stages')).toContainText('1 of 5 parts');
  // The pear is dragged onto the folder.
  const grip = (await page.getByRole('button', { name: 'Move pear' }).boundingBox())!;
  const folder = (await page.locator('[data-folder=leaves]').boundingBox())!;
  await page.mouse.move(grip.x + 6, grip.y + 8);
  await page.mouse.down();
  await page.mouse.move(grip.x + 6, grip.y - 40, { steps: 6 });
  await page.mouse.move(grip.x + 6, folder.y + 14, { steps: 10 });
  await page.mouse.up();
  await expect.poll(fromTop).toEqual(['/stem', 'leaves/pear', 'leaves/left', 'leaves/right', '/Sheet 1']);
  await page.getByRole('button', { name: 'Close leaves' }).click();
  await expect(page.locator('[data-sheet=left]')).toHaveCount(0);
  await page.getByRole('button', { name: 'Open leaves' }).click();
  // A part is boxed; choosing its sheet goes there.
  await page.locator('[data-sheet=right] .name').click();
  await page.getByRole('button', { name: 'Part', exact: true }).click();
  await hand.drag({ x: 500, y: 300 }, { x: 700, y: 420 });
  const part = (await hand.saved()).sheets.find((s) => s.name === 'right')!.part!;
  near({ x: part.minX, y: part.minY }, { x: 500, y: 300 }, 2);
  await page.getByRole('button', { name: 'Place', exact: true }).click();
  await page.locator('[data-sheet=stem] .name').click();
  await page.locator('[data-sheet=right] .name').click();
  await expect.poll(async () => (await hand.keptView()).scale).toBeGreaterThan(2);
});

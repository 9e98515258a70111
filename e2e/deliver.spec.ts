import { expect, test, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { readSvg } from '../src/core';
import { allLines } from '../src/core/drawing/items';
import { svgFeatures } from '../src/core/test/svg/features';
import { freshSheet, type Drawing } from '../src/core/drawing/schema';
import { BenchHand, drawingOf, levelLine } from './bench';

const badge = svgFeatures.find(([name]) => name === 'a badge')![1];

/** A line that is not of the palette, one that is, and a sheet with nothing on it. */
const withTwoSheets = (d: Drawing): Drawing => {
  const painted = (id: string, y: number, stroke: Drawing['sheets'][number]['style']['stroke']) => {
    const line = levelLine(id, y);
    return { ...line, style: { ...line.style, stroke } };
  };
  return {
    ...d,
    palette: [{ id: 'leaf', name: 'Leaf', colour: '#2a9d8f' }],
    sheets: [
      { ...d.sheets[0], items: [painted('a', 150, '#123456'), painted('b', 300, { swatch: 'leaf' })] },
      freshSheet('nothing', 'Nothing yet', '#d1495b'),
    ],
  };
};

/** Brings an SVG in from the home page, as a file. */
async function bringIn(page: Page, name: string, text: string): Promise<string> {
  await page.goto('/');
  await expect(page.locator('.home')).toHaveAttribute('data-ready', 'true');
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Lines of an SVG' }).click(),
  ]);
  await chooser.setFiles({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) });
  await page.waitForURL(/\/drawing\//, { timeout: 30_000 });
  return page.url().split('/').at(-1)!;
}

/** Saves as a kind of file, once it was made and its size told. */
async function saved(page: Page, kind: string, label: string): Promise<{ bytes: Buffer; told: string }> {
  const card = page.getByRole('group', { name: 'Save as a file' });
  await page.getByRole('combobox', { name: 'Kind of file' }).click();
  await page.locator('.ant-select-item-option', { hasText: kind }).click();
  const figure = card.locator('.row', { hasText: /^File/ });
  await expect(figure).toContainText(/\d.*[kM]?B/, { timeout: 30_000 });
  const told = (await figure.textContent())!;
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('link', { name: `Save ${label}` })
      .or(page.getByRole('button', { name: `Save ${label}` }))
      .click(),
  ]);
  return { bytes: await readFile(await download.path()), told };
}

test('an SVG by others is brought in, drawn over, and saved as every kind of file, each as it was told', async ({
  page,
  request,
}) => {
  test.setTimeout(150_000);
  const id = await bringIn(page, 'badge.svg', badge);
  const read = async () => (await (await request.get(`/api/drawings/${id}`)).json()).drawing;
  const before = allLines(await read()).length;
  const hand = await BenchHand.open(page, id, { view: { scale: 2, x: 60, y: 60 } });
  for (const p of [
    { x: 20, y: 20 },
    { x: 60, y: 30 },
    { x: 90, y: 20 },
  ])
    await hand.click(p);
  await page.keyboard.press('Escape');
  await expect.poll(async () => allLines(await read()).length).toBe(before + 1);

  await page.keyboard.press('6');
  const svg = await saved(page, 'SVG', 'SVG');
  expect(allLines(readSvg(svg.bytes.toString()).drawing)).toHaveLength(before + 1);
  expect(await page.getByAltText('The file as it will be').evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(200);

  const pdf = await saved(page, 'PDF', 'PDF');
  const file = test.info().outputPath('badge.pdf');
  await (await import('node:fs/promises')).writeFile(file, pdf.bytes);
  expect(execFileSync('pdfinfo', [file]).toString()).toMatch(/Page size:\s+150 x 112.5 pts/);

  // Pixels and resolution go together.
  await page.getByRole('combobox', { name: 'Kind of file' }).click();
  await page.locator('.ant-select-item-option', { hasText: 'PNG' }).click();
  const wide = page.getByRole('textbox', { name: 'Width in pixels' });
  await wide.fill('400');
  await wide.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Resolution' })).toHaveValue('192');
  await expect(page.getByRole('textbox', { name: 'Height in pixels' })).toHaveValue('300');
  const kinds = [
    ['PNG', 'PNG', 'png'],
    ['JPEG', 'JPEG', 'jpeg'],
    ['WebP', 'WebP', 'webp'],
    ['AVIF', 'AVIF', 'heif'],
    ['TIFF', 'TIFF', 'tiff'],
  ];
  for (const [kind, label, format] of kinds) {
    const { bytes, told } = await saved(page, kind, label);
    const { width, height, format: is } = await sharp(bytes).metadata();
    expect([width, height, is]).toEqual([400, 300, format]);
    const [, figure, unit] = /([\d.,]+)\s*(k?B|MB)/.exec(told)!;
    const size = Number(figure.replace(',', '')) * (unit === 'B' ? 1 : unit === 'kB' ? 1e3 : 1e6);
    expect(Math.abs(size - bytes.length)).toBeLessThan(0.06 * bytes.length);
  }
});

test('an SVG is pasted with its gradients and pictures; what is none is refused with words', async ({
  page,
  request,
}) => {
  const id = await bringIn(page, 'badge.svg', badge);
  const read = async () => (await (await request.get(`/api/drawings/${id}`)).json()).drawing;
  const hand = await BenchHand.open(page, id, { view: { scale: 2, x: 60, y: 60 } });
  const gradients = (await read()).gradients.length;
  const picture = svgFeatures.find(([name]) => name === 'picture in a clip')![1];
  const radial = svgFeatures.find(([name]) => name === 'radial turned')![1];
  await hand.paste(picture);
  await expect.poll(async () => JSON.stringify((await read()).sheets), { timeout: 15_000 }).toContain('"picture"');
  await hand.paste(radial);
  await expect.poll(async () => (await read()).gradients.length, { timeout: 15_000 }).toBe(gradients + 1);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await read()).gradients.length).toBe(gradients);
  await hand.paste('<svg xmlns="http://www.w3.org/2000/svg"><path d="');
  await expect(page.getByText(/This cannot be pasted/)).toBeVisible();
});

test('a drawing is saved as a package, thrown away for good, and opened again with its history', async ({
  page,
  request,
}) => {
  const id = await bringIn(page, 'badge.svg', badge);
  const hand = await BenchHand.open(page, id, { view: { scale: 2, x: 60, y: 60 } });
  for (const p of [
    { x: 20, y: 20 },
    { x: 60, y: 30 },
  ])
    await hand.click(p);
  await page.keyboard.press('Escape');
  const before = await hand.saved();
  await page.keyboard.press('6');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('link', { name: 'Save the package' })
      .or(page.getByRole('button', { name: 'Save the package' }))
      .click(),
  ]);
  expect(download.suggestedFilename()).toBe('badge.yquill');
  const bytes = await readFile(await download.path());
  for (const deed of ['bin', 'delete for good']) await request.patch('/api/drawings', { data: { ids: [id], deed } });

  await page.goto('/');
  await expect(page.locator('.home')).toHaveAttribute('data-ready', 'true');
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Open a package' }).click(),
  ]);
  await chooser.setFiles({ name: 'badge.yquill', mimeType: 'application/zip', buffer: bytes });
  await page.waitForURL(/\/drawing\//, { timeout: 30_000 });
  const again = page.url().split('/').at(-1)!;
  expect(again).not.toBe(id);
  const there = await BenchHand.open(page, again, { view: { scale: 2, x: 60, y: 60 } });
  expect(await there.saved()).toEqual(before);
  // What was done on the other machine can be taken back on this one.
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  // A node each.
  for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => allLines(await there.saved()).length).toBe(allLines(before).length - 1);
});

test('choices are kept as presets; several files come in one press, and are found again', async ({ page, request }) => {
  test.setTimeout(120_000);
  const id = await bringIn(page, 'badge.svg', badge);
  await BenchHand.open(page, id, { stage: 'deliver', view: { scale: 2, x: 60, y: 60 }, tool: 'select' });
  const card = page.getByRole('group', { name: 'Save as a file' });
  const keep = async (name: string): Promise<void> => {
    await card.getByRole('button', { name: 'Keep' }).click();
    await page.getByLabel('Name of the preset').fill(name);
    await page.keyboard.press('Enter');
    await expect(card.getByRole('button', { name: 'Keep' })).toBeDisabled();
  };
  const pick = async (label: string, option: string): Promise<void> => {
    await page.getByRole('combobox', { name: label, exact: true }).click();
    await page.locator('.ant-select-item-option', { hasText: option }).click();
  };
  await keep('for the shop');
  await pick('Kind of file', 'PDF');
  await pick('What it shows', 'lines only');
  await card.getByRole('button', { name: 'For print' }).click();
  await pick('Paper', 'A4');
  await keep('to be coloured');
  await card.getByRole('button', { name: 'Several' }).click();
  await page.getByRole('button', { name: 'Make all 2, as a zip' }).click();
  const made = page.getByRole('group', { name: 'Made files' });
  await expect(made.getByRole('link', { name: 'Save badge.zip' })).toBeVisible({ timeout: 30_000 });
  // Whoever went away finds them.
  await page.reload();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    made.getByRole('link', { name: 'Save badge.zip' }).click({ timeout: 20_000 }),
  ]);
  const bytes = await readFile(await download.path());
  const { jobs } = await (await request.get(`/api/drawings/${id}/files`)).json();
  expect(jobs[0]).toMatchObject({ state: 'done', total: 2, bytes: bytes.length });
  const text = bytes.toString('latin1');
  expect(text).toContain('badge, for the shop.svg');
  expect(text).toContain('badge, to be coloured.pdf');
  await made.getByRole('button', { name: 'Forget badge.zip' }).click();
  await expect(made).toBeHidden();
});

test('what is left to do is counted, and each leads to its place', async ({ page, request }) => {
  const hand = await BenchHand.open(page, await drawingOf(request, withTwoSheets), {
    stage: 'deliver',
    tool: 'select',
  });
  await page.getByText('Ready?', { exact: true }).first().click();
  const card = page.getByRole('group', { name: 'Ready?' });
  await expect(card).toContainText('1 part to do');
  await expect(card).toContainText('1 empty sheet');
  await expect(card).toContainText('1 in #123456, not of the palette');
  await expect(card.getByRole('button', { name: /overhang|gap|crumb|no notes/ }).first()).toBeVisible({
    timeout: 20_000,
  });
  await card.getByRole('button', { name: /not of the palette/ }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeVisible();
  await page.keyboard.press('Delete');
  await expect.poll(async () => allLines(await hand.saved()).map((l) => l.id)).toEqual(['b']);
  await expect(card).not.toContainText('not of the palette, ');
  await card.getByRole('button', { name: /1 empty sheet/ }).click();
  await expect(page.locator('.sheet.now', { hasText: 'Nothing yet' })).toBeVisible();
});

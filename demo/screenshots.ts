import { chromium, type Page } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { launchOptions, Program } from '../e2e/program';

/** Takes the pictures in docs/screenshots of the built program, from the demo's data in a folder of its own. */

async function shoot(page: Page, name: string): Promise<void> {
  await page.waitForTimeout(500);
  const picture = await page.screenshot();
  await sharp(picture).png({ palette: true, quality: 92, compressionLevel: 9 }).toFile(`docs/screenshots/${name}.png`);
}

async function main(): Promise<void> {
  const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-shots-'));
  spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'demo/make.ts'], {
    env: { ...process.env, YELLOW_QUILL_DATA: data },
  });
  const program = new Program(data);
  try {
    await program.start();
    const browser = await chromium.launch(launchOptions);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: program.base });
    await page.goto('/');
    await page.waitForTimeout(2_500);
    await shoot(page, 'home');
    const { drawings } = (await (await page.request.get('/api/drawings')).json()) as {
      drawings: { id: string; title: string }[];
    };
    const open = async (title: string): Promise<void> => {
      await page.goto(`/drawing/${drawings.find((d) => d.title.startsWith(title))!.id}`);
      await page.waitForSelector('[data-sharp=true]');
      await page.waitForTimeout(1_200);
    };
    await open('Snail');
    const corrected = (n: number) =>
      page.waitForFunction((k) => document.querySelector('.save')?.textContent === `saved, change ${k}`, n);
    await page.getByRole('button', { name: 'Corners' }).click();
    await corrected(2);
    await page.waitForTimeout(800);
    await page.getByRole('button', { name: 'Done' }).click();
    await page.getByRole('switch', { name: 'Even light' }).click();
    await corrected(3);
    await page.getByRole('switch', { name: 'Ink and paper' }).click();
    await corrected(4);
    await page.waitForTimeout(2_500);
    await shoot(page, 'prepare');
    await page.getByRole('button', { name: 'Pull ink' }).click();
    await page.getByRole('button', { name: 'Pull lines' }).click();
    await page.getByText('Lines kept').waitFor();
    await shoot(page, 'pull-ink');

    await open('Clay pot');
    await page
      .getByRole('button', { name: /^Prepare/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Pull shapes' }).click();
    await page.getByRole('group', { name: 'Pull shapes' }).getByRole('button', { name: 'Pull shapes' }).click();
    await page.getByText('Shapes kept').waitFor();
    await shoot(page, 'pull-shapes');

    await open('Pear');
    await page.getByRole('button', { name: /^Leaf, left/ }).click();
    const drag = async (x: number, y: number, dx: number, dy: number): Promise<void> => {
      await page.mouse.move(x, y);
      await page.mouse.down();
      await page.mouse.move(x + dx, y + dy, { steps: 5 });
      await page.mouse.up();
    };
    await page.mouse.click(579, 193);
    await drag(509, 241, -26, 4);
    await page.mouse.move(452, 230, { steps: 4 });
    await shoot(page, 'trace');
    await page.mouse.click(452, 229);
    await page.keyboard.press('Enter');
    await page.keyboard.press('q');
    await page.keyboard.press('z');
    await page.mouse.move(579, 193);
    await page.mouse.down();
    for (let i = 1; i <= 40; i++) await page.mouse.move(579 - 3.1 * i, 193 + 0.95 * i + Math.sin(i / 3));
    await shoot(page, 'pencil');
    await page.mouse.up();
    await page.keyboard.press('z');
    await page.keyboard.press('s');
    await page.waitForTimeout(300);
    await page.keyboard.press('Control+a');
    await shoot(page, 'select');
    await page.keyboard.press('Escape');

    await page.keyboard.press('3');
    await page.keyboard.press('d');
    await page.mouse.click(722, 495);
    await page.mouse.move(690, 330);
    await page.mouse.wheel(0, -100);
    await page.waitForTimeout(600);
    await page.keyboard.press('0');
    await page.waitForTimeout(600);
    await page.mouse.click(582, 366);
    await page.waitForSelector('[data-state=ready]');
    await page.waitForTimeout(1_000);
    await shoot(page, 'refine');
    await page.keyboard.press('Control+a');
    await page.keyboard.press('g');
    await page.getByText(/lines move/).waitFor();
    await shoot(page, 'settle');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Shift+2');
    await page.getByRole('button', { name: 'The next patch' }).click();
    await shoot(page, 'untraced');
    await page.keyboard.press('Shift+2');
    await page.getByRole('button', { name: 'The next note' }).click();
    await shoot(page, 'notes');
    await page.keyboard.press('0');
    await page.getByRole('button', { name: 'Compare' }).click();
    await page.getByRole('menuitem', { name: 'wipe' }).click();
    await shoot(page, 'compare');
    await page.getByRole('button', { name: 'Compare' }).click();
    await page.getByRole('menuitem', { name: 'each in its place' }).click();
    await page.keyboard.press('4');
    await page.keyboard.press('Control+a');
    await page.getByRole('button', { name: '2', exact: true }).click();
    await page.getByRole('button', { name: 'both ends' }).click();
    await page.getByRole('group', { name: 'Kind of nib' }).getByRole('button', { name: 'tapered' }).click();
    await page.keyboard.press('Escape');
    await page.locator('.lines-list .ant-tree-node-content-wrapper').last().click();
    await page.getByRole('button', { name: 'belly' }).click();
    await page.getByRole('slider', { name: 'Mark 2' }).focus();
    await shoot(page, 'ink');
    await page.keyboard.press('Escape');
    for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
    await page.keyboard.press('Escape');
    await page.keyboard.press('6');
    await page.getByAltText('The file as it will be').waitFor();
    await shoot(page, 'deliver');
    await page.keyboard.press('?');
    await shoot(page, 'keys');
    await open('Seed packet');
    await page.keyboard.press('0');
    const at = async (x: number, y: number): Promise<void> => {
      const box = (await page.getByTestId('page').boundingBox())!;
      await page.mouse.click(box.x + x * box.width, box.y + y * box.height);
    };
    await page.keyboard.press('s');
    await at(0.45, 0.6);
    await page.getByText(/of 15 areas/).waitFor();
    await shoot(page, 'colour');
    const cards = page.getByRole('radiogroup', { name: 'What the cards show' });
    await cards.getByText('Palette').click();
    await page.getByRole('button', { name: '5', exact: true }).click();
    await page.locator('.swatch').nth(2).click();
    await shoot(page, 'palette');
    await cards.getByText('Tones').click();
    await page.getByRole('list', { name: 'The worst first' }).waitFor();
    await page.getByRole('button', { name: 'side by side' }).click();
    await page.getByRole('button', { name: 'in greys' }).click();
    await page.waitForTimeout(1_500);
    await shoot(page, 'tones');
    await page.getByRole('button', { name: 'in greys' }).click();
    await page.getByRole('button', { name: 'side by side' }).click();
    const tablet = await browser.newPage({
      viewport: { width: 1024, height: 700 },
      hasTouch: true,
      baseURL: program.base,
    });
    await tablet.goto(`/drawing/${drawings.find((d) => d.title.startsWith('Pear'))!.id}`);
    await tablet.waitForSelector('[data-sharp=true]');
    await shoot(tablet, 'tablet');
    await browser.close();
  } finally {
    await program.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

main().catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});

import { chromium, type Page } from '@playwright/test';
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';

/** Takes the pictures in docs/screenshots of the built program, from the demo's data in a folder of its own. */

const port = process.env.SHOTS_PORT!;
const base = `http://127.0.0.1:${port}`;

async function shoot(page: Page, name: string): Promise<void> {
  await page.waitForTimeout(500);
  const picture = await page.screenshot();
  await sharp(picture).png({ palette: true, quality: 92, compressionLevel: 9 }).toFile(`docs/screenshots/${name}.png`);
}

async function main(): Promise<void> {
  const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-shots-'));
  const server = spawn(process.execPath, ['e2e/startServer.mjs'], {
    env: { ...process.env, YELLOW_QUILL_DATA: data, PORT: port },
    stdio: 'ignore',
  });
  try {
    for (
      let i = 0;
      i < 300 &&
      !(await fetch(`${base}/api/health`).then(
        (r) => r.ok,
        () => false,
      ));
      i++
    )
      await new Promise((r) => setTimeout(r, 300));
    const browser = await chromium.launch({
      executablePath: process.env.CHROMIUM,
      args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
    });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: base });
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
    await page.getByRole('button', { name: 'Unlock sketchbook-snail.jpg' }).click();
    await shoot(page, 'prepare');
    await page.keyboard.press('Control+z');

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

    await page.keyboard.press('3');
    await page.keyboard.press('d');
    await page.mouse.click(722, 495);
    await page.mouse.move(690, 330);
    await page.mouse.wheel(0, -100);
    await page.waitForTimeout(600);
    await page.keyboard.press('0');
    await page.waitForTimeout(600);
    await page.mouse.click(582, 366);
    await shoot(page, 'refine');
    await page.keyboard.press('4');
    await page.keyboard.press('Control+a');
    await shoot(page, 'ink');
    await page.keyboard.press('Escape');
    await page.keyboard.press('6');
    await shoot(page, 'deliver');
    await page.keyboard.press('?');
    await shoot(page, 'keys');
    await browser.close();
  } finally {
    server.kill('SIGTERM');
    rmSync(data, { recursive: true, force: true });
  }
}

main().catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});

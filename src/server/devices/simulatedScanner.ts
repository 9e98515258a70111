import { existsSync } from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import sharp from 'sharp';
import { folder } from '../place';
import { snailLines, snailPage } from '../simulated/curves/snail';
import { pearLines, pearPage } from '../simulated/curves/pear';
import { pencilPage } from '../simulated/pictures/pearScan';
import { PaperJam, type ScannerPage, type Scanner, type ScanOptions } from './scanner';

/** At this density the pages are drawn once; others are made of that. */
const DRAWN_DPI = 300;
const STEPS = 24;

const drawings = {
  pear: { name: 'Pear branch, pencil', width: 148, height: 210, lines: pearLines, units: pearPage, tilt: 0 },
  snail: { name: 'Snail, pencil, laid askew', width: 140, height: 100, lines: snailLines, units: snailPage, tilt: 2.3 },
} as const;

/** A page that gets stuck half way, so that what comes of it can be tried. */
const CRUMPLED = 'crumpled';

/** A scanner that ships with the program: made-up pages, as slow as its lamp would be. */
export class SimulatedScanner implements Scanner {
  readonly name = 'Flat-bed (simulated)';

  /** `pace`: how long a step of the lamp takes beside the usual; tests hurry it. */
  constructor(private readonly pace = 1) {}

  async pages(): Promise<ScannerPage[]> {
    const own = Object.entries(drawings).map(([id, { name, width, height }]) => ({ id, name, width, height }));
    return [...own, { id: CRUMPLED, name: 'A crumpled sheet', width: 148, height: 210 }];
  }

  async scan({ page, dpi, colour }: ScanOptions, onProgress: (share: number) => void, signal: AbortSignal) {
    const drawn = page === CRUMPLED ? null : drawnPage(page as keyof typeof drawings);
    // Finer scans take longer, as they do on glass.
    const step = (this.pace * (60 + dpi / 2)) | 0;
    for (let i = 0; i < STEPS; i++) {
      await wait(step, undefined, { signal });
      onProgress((i + 1) / (STEPS + 1));
      if (page === CRUMPLED && i === STEPS / 2) throw new PaperJam();
    }
    const picture = sharp(await drawn!);
    const { width } = await picture.metadata();
    const scaled = picture.resize({ width: Math.max(1, Math.round((width * dpi) / DRAWN_DPI)) });
    const toned = colour ? scaled.tint('#f6efdd').toColourspace('srgb') : scaled.toColourspace('b-w');
    signal.throwIfAborted();
    return toned.withMetadata({ density: dpi }).png({ compressionLevel: 6 }).toBuffer();
  }
}

/** A page's drawing, made on first use and kept. */
async function drawnPage(id: keyof typeof drawings): Promise<Buffer> {
  const file = path.join(folder('derived'), `scanner-${id}.png`);
  if (existsSync(file)) return readFile(file);
  const { lines, units, width, tilt } = drawings[id];
  const px = Math.round((width / 25.4) * DRAWN_DPI);
  const size = { width: px, height: Math.round((px * units.height) / units.width) };
  const flat = await pencilPage(lines, units.width, size, id === 'pear' ? 41 : 63);
  const bytes = tilt === 0 ? flat : await sharp(flat).rotate(tilt, { background: '#3a3a3c' }).png().toBuffer();
  await writeFile(`${file}.new`, bytes);
  await rename(`${file}.new`, file);
  return bytes;
}

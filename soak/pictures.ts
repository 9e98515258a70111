import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import sharp, { type FormatEnum } from 'sharp';
import { Program } from '../e2e/program';
import { emptyDrawing, plainPage } from '../src/core';
import { seeded } from '../src/core/seeded';
import { closeDatabase } from '../src/server/database';
import { keepDrawing } from '../src/server/drawings';

/**
 * Pictures with damage of every kind, sent to be taken in: each is refused with words, or can be seen, and some of them delivered;
 * others are answered meanwhile. `tsx soak/pictures.ts --count 20000 --seed 1`
 */

const { values } = parseArgs({
  options: { count: { type: 'string', default: '20000' }, seed: { type: 'string', default: '1' } },
});
const SLOW_MS = 3_000;
const DELIVERED_EVERY = 20;
/** A drawing takes so many before another is begun. */
const A_DRAWING = 50;
const random = seeded(Number(values.seed));
const below = (n: number): number => Math.floor(random() * n);
const pick = <T>(list: readonly T[]): T => list[below(list.length)];

const page = plainPage({ width: 300, height: 200, unit: 'px', dpi: 96, ground: null });

/** Sound pictures to begin with, of every kind that is taken. */
async function sound(): Promise<Buffer[]> {
  const [width, height] = [120, 90];
  const pixels = Buffer.from({ length: width * height * 4 } as ArrayLike<number>).map((_, i) =>
    i % 4 === 3 ? 255 : 128 + 100 * Math.sin(i / 37) + 20 * Math.cos(i / 911),
  );
  const from = () => sharp(pixels, { raw: { width, height, channels: 4 } });
  const kinds: readonly (keyof FormatEnum)[] = ['png', 'jpeg', 'webp', 'gif', 'tiff'];
  const rasters = await Promise.all(kinds.map((kind) => from().toFormat(kind).toBuffer()));
  const more = await Promise.all([
    from().avif().toBuffer(),
    from().png({ progressive: true, palette: true }).toBuffer(),
    from().jpeg({ progressive: true }).withMetadata({ orientation: 6 }).toBuffer(),
    from().tiff({ compression: 'lzw', tile: true }).toBuffer(),
    from().toColourspace('cmyk').jpeg().toBuffer(),
  ]);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="120" height="90"><defs><linearGradient id="g"><stop offset="0" stop-color="#f00"/><stop offset="1"/></linearGradient></defs><path d="M10 10C30 0 60 80 110 70" fill="none" stroke="url(#g)" stroke-width="3"/><text x="9" y="40">quill</text><use href="#g"/></svg>`;
  return [...rasters, ...more, Buffer.from(svg)];
}

/** One kind of damage, or several. */
function damaged(whole: Buffer, others: readonly Buffer[]): Buffer {
  const bytes = Buffer.from(whole);
  const at = below(bytes.length);
  switch (below(7)) {
    case 0:
      for (let k = 1 + below(8); k > 0; k--) bytes[below(bytes.length)] ^= 1 << below(8);
      return bytes;
    case 1:
      // Where the sizes and tables stand.
      for (let k = 1 + below(4); k > 0; k--) bytes[below(Math.min(bytes.length, 120))] = below(256);
      return bytes;
    case 2:
      return bytes.subarray(0, at);
    case 3:
      return Buffer.concat([bytes.subarray(0, at), bytes.subarray(below(at + 1))]);
    case 4:
      return Buffer.concat([bytes.subarray(0, at), pick(others).subarray(at)]);
    case 5:
      return bytes.fill(pick([0, 255, 128]), at, Math.min(bytes.length, at + 1 + below(60)));
    default:
      // Numbers of four bytes at their bounds.
      bytes.writeUInt32BE(pick([0, 0x7fffffff, 0xffffffff, 0x00010000]), Math.min(at, Math.max(0, bytes.length - 4)));
      return bytes;
  }
}

async function main(): Promise<void> {
  const place = mkdtempSync(path.join(tmpdir(), 'yellow-quill-pictures-'));
  process.env.YELLOW_QUILL_DATA = place;
  const count = Number(values.count);
  const ids = Array.from(
    { length: Math.ceil(count / A_DRAWING) },
    (_, i) => keepDrawing(`Damaged ${i}`, emptyDrawing(page, { id: 's', name: 'Sheet 1', tag: '#8f2d63' })).id,
  );
  closeDatabase();
  const server = new Program(place, path.join(tmpdir(), 'yellow-quill-pictures.log'));
  await server.start();
  const faults: string[] = [];
  const seen = new Map<number, number>();
  let slowest = 0;
  const asked = async (what: string, n: number, init?: RequestInit): Promise<Response | null> => {
    const begin = performance.now();
    const response = await fetch(server.base + what, { ...init, signal: AbortSignal.timeout(60_000) }).catch(
      (error: Error) => error,
    );
    const took = performance.now() - begin;
    slowest = Math.max(slowest, took);
    const isWrong = response instanceof Error || response.status >= 500;
    if (isWrong || took > SLOW_MS)
      faults.push(
        `${n} ${what}: ${response instanceof Error ? response.message : response.status} in ${Math.round(took)} ms`,
      );
    return response instanceof Error ? null : response;
  };
  // Someone else, who is at work meanwhile.
  const waits: number[] = [];
  let ends = false;
  const other = (async () => {
    while (!ends) {
      const begin = performance.now();
      await (await fetch(`${server.base}/api/drawings/${ids[0]}/changes?before=1`)).arrayBuffer();
      waits.push(performance.now() - begin);
      await wait(100);
    }
  })();
  const memory: number[] = [];
  const all = await sound();
  for (let n = 0; n < count; n++) {
    if (n % Math.ceil(count / 6) === 0) memory.push(await memoryNow(server.base));
    const id = ids[Math.floor(n / A_DRAWING)];
    const bytes = damaged(pick(all), all);
    const body = new Uint8Array(bytes);
    const taken = await asked(`/api/drawings/${id}/references?name=a`, n, { method: 'POST', body });
    if (!taken) continue;
    seen.set(taken.status, (seen.get(taken.status) ?? 0) + 1);
    const answer = (await taken.json()) as { reference?: { picture: string } };
    if (!answer.reference) continue;
    for (const size of ['screen', 'thumb']) {
      const shown = await asked(`/api/pictures/${answer.reference.picture}?size=${size}`, n);
      if (shown?.status !== 200) faults.push(`${n}: taken, and not to be seen (${shown?.status})`);
      await shown?.arrayBuffer();
    }
    if (n % DELIVERED_EVERY === 0) {
      const file = await asked(`/api/drawings/${id}/export?format=${pick(['png', 'pdf'])}&reference=1`, n);
      if (file?.status !== 200) faults.push(`${n}: taken, and not to be delivered (${file?.status})`);
      await file?.arrayBuffer();
    }
  }
  memory.push(await memoryNow(server.base));
  ends = true;
  await other;
  waits.sort((a, b) => a - b);
  const p = (share: number): number => Math.round(waits[Math.floor(share * (waits.length - 1))]);
  console.log(
    `${count} pictures: ${[...seen]
      .sort()
      .map(([s, n]) => `${s} ${n}`)
      .join(
        ', ',
      )}; the slowest answer ${Math.round(slowest)} ms; others waited ${p(0.5)} ms (median), ${p(0.95)} (p95), ${p(1)} (most); memory ${memory.join(', ')} MB; ${faults.length} faults`,
  );
  for (const fault of faults.slice(0, 20)) console.log(`  ${fault}`);
  await server.stop('SIGKILL');
  rmSync(place, { recursive: true, force: true });
  process.exit(faults.length === 0 ? 0 : 1);
}

const memoryNow = async (base: string): Promise<number> =>
  Math.round(((await (await fetch(`${base}/api/health`)).json()) as { memory: number }).memory / 1e6);

void main();

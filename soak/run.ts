import { execFileSync, fork, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { Program } from '../e2e/program';
import { emptyDrawing, plainPage, type Change, type Drawing } from '../src/core';
import { seeded } from '../src/core/seeded';
import { closeDatabase } from '../src/server/database';
import { keepDrawing, listDrawings } from '../src/server/drawings';
import { forgetAll, historyOf, stateOf } from '../src/server/journal';
import { checkData } from '../src/server/keeping/check';
import { faults, looked, mended, type World } from './faults';
import type { Ended, FromBrowser, ToBrowser } from './messages';
import { judged, type Found, type Verdict } from './model';

/** Simulated hands on several drawings and browsers, while what can go wrong does, by a seed; then all is counted. */

const BROWSERS = 3;
const DISK_MB = 300;

const { values } = parseArgs({
  options: {
    minutes: { type: 'string', default: '30' },
    seed: { type: 'string', default: '1' },
    seeds: { type: 'string', default: '1' },
    /** Faults that are not thrown, by their names with commas between. */
    without: { type: 'string', default: '' },
  },
});

async function main(): Promise<void> {
  let isWhole = true;
  for (let i = 0; i < Number(values.seeds); i++) {
    const seed = Number(values.seed) + i;
    const { verdict, thrown } = await soak(seed, Number(values.minutes) * 60_000);
    const { made, acknowledged, aside, stuck, back, faults: wrong } = verdict;
    const what = Object.entries(thrown)
      .map(([name, n]) => `${name} ${n}`)
      .join(', ');
    console.log(
      `seed ${seed}: ${made} changes made, ${acknowledged} acknowledged, ${aside} put aside, ${stuck} kept as a file, ${back} taken back with a backup, ${wrong.length} faults; thrown: ${what}`,
    );
    for (const fault of wrong.slice(0, 20)) console.log(`  ${fault}`);
    isWhole &&= wrong.length === 0;
  }
  process.exit(isWhole ? 0 : 1);
}

async function soak(seed: number, ms: number): Promise<{ verdict: Verdict; thrown: Record<string, number> }> {
  const random = seeded(seed);
  const disk = mkdtempSync(path.join(tmpdir(), 'yellow-quill-soak-'));
  const isSmall = mounted(disk);
  const place = path.join(disk, 'data');
  mkdirSync(place);
  process.env.YELLOW_QUILL_DATA = place;
  const page = plainPage({ width: 1000, height: 700, unit: 'px', dpi: 96, ground: null });
  const drawings = Array.from(
    { length: 2 * BROWSERS },
    (_, i) => keepDrawing(`Soak ${i}`, emptyDrawing(page, { id: 's', name: 'Sheet 1', tag: '#8f2d63' })).id,
  );
  closeDatabase();
  forgetAll();
  const server = new Program(place, path.join(tmpdir(), `yellow-quill-soak-${seed}.log`));
  await server.start();
  const browsers = Array.from({ length: BROWSERS }, (_, i) => {
    const own = drawings.slice(2 * i, 2 * i + 2);
    return new Browser([server.base, String(1_000 * seed + i), ...own, ...drawings.filter((d) => !own.includes(d))]);
  });
  const any = (): Browser => browsers[Math.floor(random() * browsers.length)];
  let cut = any();
  const world: World = {
    place,
    server,
    random,
    isSmall,
    drawings,
    takenBack: new Set(),
    cut: (on) => (on ? (cut = any()) : cut).tell({ kind: 'cut', on }),
    takeOver: () => any().tell({ kind: 'take over' }),
  };
  try {
    await faults.backup(world);
    const thrown = await throwAll(world, Date.now() + ms);
    await looked(world);
    const ended = await Promise.all(browsers.map((b) => b.finish()));
    await server.stop('SIGKILL');
    const { findings } = checkData(place);
    const verdict = judged(ended, drawingsFound(), world.takenBack);
    return {
      verdict: {
        ...verdict,
        faults: [...verdict.faults, ...findings.filter((f) => f.opens !== true).map((f) => f.words)],
      },
      thrown,
    };
  } catch (error) {
    if (process.env.SOAK_LOOK)
      console.log(
        await fetch(`${server.base}/api/health`).then((r) => r.text(), String),
        execFileSync('du', ['-ah', '-t', '500000', disk]).toString(),
      );
    throw error;
  } finally {
    for (const b of browsers) b.end();
    await server.stop('SIGKILL');
    closeDatabase();
    if (isSmall) execFileSync('umount', [disk]);
    rmSync(disk, { recursive: true, force: true });
  }
}

async function throwAll(world: World, until: number): Promise<Record<string, number>> {
  const names = Object.keys(faults).filter((name) => !values.without.split(',').includes(name));
  const thrown: Record<string, number> = {};
  while (Date.now() < until) {
    await wait(500 + world.random() * 2_500);
    const name = names[Math.floor(world.random() * names.length)];
    if (name === 'full disk' && !world.isSmall) continue;
    thrown[name] = (thrown[name] ?? 0) + 1;
    if (process.env.SOAK_LOOK) console.log('  ', new Date().toISOString().slice(17, 23), name);
    try {
      await faults[name](world);
    } catch (error) {
      console.log(`  (${name}: ${(error as Error).message.slice(0, 160)})`);
    }
    await mended(world);
  }
  return thrown;
}

/** A small disk of its own, which can be filled; where this may not be had, that fault is not thrown. */
function mounted(at: string): boolean {
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m`, 'tmpfs', at], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
}

/** All drawings with their whole journals, read with nothing remembered. */
function drawingsFound(): Found[] {
  forgetAll();
  return listDrawings().map(({ id, revision }) => {
    const journal: Change[] = [];
    while (journal.length < revision) {
      const { from, changes } = historyOf(id, revision + 1 - journal.length, 1_000);
      if (changes.length === 0) throw new Error(`${id}: the journal cannot be read before ${from}`);
      journal.unshift(...changes);
    }
    const first: Drawing = stateOf(id, 0).drawing;
    return { id, first, drawing: stateOf(id).drawing, journal };
  });
}

class Browser {
  private readonly child: ChildProcess;
  private readonly ended: Promise<Ended>;

  constructor(args: readonly string[]) {
    this.child = fork(path.join(__dirname, 'browser.ts'), args, { execArgv: ['--import', 'tsx'] });
    this.ended = new Promise((resolve, reject) => {
      this.child.on('message', (m: FromBrowser) => (m.kind === 'ended' ? resolve(m) : reject(new Error(m.why))));
      this.child.on('exit', (code) => reject(new Error(`a browser ended with ${code}`)));
    });
    this.ended.catch(() => undefined);
  }

  tell(message: ToBrowser): void {
    this.child.send(message);
  }

  finish(): Promise<Ended> {
    this.tell({ kind: 'finish' });
    return this.ended;
  }

  end(): void {
    this.child.kill('SIGKILL');
  }
}

void main();

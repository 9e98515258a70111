import { closeSync, existsSync, openSync, readdirSync, readFileSync, rmSync, statSync, writeSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import Database from 'better-sqlite3';
import type { Program } from '../e2e/program';
import type { Keeping } from '../src/server/keeping/keeper';

/** What goes wrong in the world. Each fault is thrown, lasts a while, and is mended as a person would mend it. */

export type World = {
  readonly place: string;
  readonly server: Program;
  readonly random: () => number;
  /** Whether the folder lies on a small disk of its own, which can be filled. */
  readonly isSmall: boolean;
  readonly drawings: readonly string[];
  /** Drawings that were there, and are not in a backup that was put back. */
  readonly takenBack: Set<string>;
  cut(on: boolean): void;
  takeOver(): void;
};

export type Fault = (world: World) => Promise<void>;

const fileOf = ({ place }: World): string => path.join(place, 'yellow-quill.sqlite');

async function keep(world: World, deed: object): Promise<Keeping> {
  for (let tries = 0; tries < 20; tries++) {
    try {
      const response = await fetch(`${world.server.base}/api/keeping`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(deed),
      });
      if (response.ok) return (await response.json()) as Keeping;
      if (response.status === 409) throw new Error(await response.text());
    } catch (error) {
      if (tries > 15) throw error;
    }
    await wait(300);
  }
  throw new Error(`${JSON.stringify(deed)} does not succeed`);
}

async function restoreNewest(world: World): Promise<void> {
  const before = await idsNow(world);
  const { backups } = (await (await fetch(`${world.server.base}/api/keeping`)).json()) as Keeping;
  await keep(world, { deed: 'restore', backup: backups.find((b) => b.findings === 0)!.name });
  const after = new Set(await idsNow(world));
  for (const id of before) if (!after.has(id)) world.takenBack.add(id);
}

/** The drawings that are there; none where they cannot be told. */
async function idsNow({ server }: World): Promise<string[]> {
  const response = await fetch(`${server.base}/api/drawings`);
  if (!response.ok) return [];
  return ((await response.json()) as { drawings: { id: string }[] }).drawings.map((d) => d.id);
}

export const faults: Readonly<Record<string, Fault>> = {
  async kill({ server, random }) {
    await server.stop('SIGKILL');
    await wait(random() * 500);
    await server.start();
  },

  async 'cut line'({ cut, random }) {
    cut(true);
    await wait(300 + random() * 2_000);
    cut(false);
  },

  async 'taken over'({ takeOver }) {
    takeOver();
  },

  async 'full disk'({ place, isSmall, random }) {
    if (!isSmall) return;
    const filler = path.join(place, '..', 'filler');
    const piece = Buffer.alloc(1 << 20, 1);
    const handle = openSync(filler, 'w');
    try {
      for (;;) if (writeSync(handle, piece) < piece.length) break;
    } catch {
      // It is full.
    }
    closeSync(handle);
    await wait(500 + random() * 2_000);
    rmSync(filler);
  },

  async lock(world) {
    const other = new Database(fileOf(world));
    try {
      other.pragma('busy_timeout = 3000');
      other.exec('begin exclusive');
      await wait(500 + world.random() * 7_000);
      other.exec('rollback');
    } finally {
      other.close();
    }
  },

  async backup(world) {
    await keep(world, { deed: 'back up' });
  },

  async 'restored backup'(world) {
    await restoreNewest(world);
  },

  async 'damaged page'(world) {
    const { server, random } = world;
    await keep(world, { deed: 'back up' });
    await server.stop('SIGKILL');
    const file = fileOf(world);
    const size = readFileSync(file).readUInt16BE(16);
    const pages = Math.floor(statSync(file).size / size);
    const handle = openSync(file, 'r+');
    writeSync(handle, Buffer.alloc(size, 0xa5), 0, size, Math.floor(random() * pages) * size);
    closeSync(handle);
    await server.start();
    await looked(world);
  },

  async 'lost log'(world) {
    await world.server.stop('SIGKILL');
    for (const end of ['-wal', '-shm']) rmSync(`${fileOf(world)}${end}`, { force: true });
    await world.server.start();
    // Without its log it is older, and may be damaged where that had mended it.
    await looked(world);
  },

  async 'taken away'(world) {
    rmSync(fileOf(world), { force: true });
    await wait(300 + world.random() * 700);
    await restoreNewest(world);
  },

  async 'changed elsewhere'({ server, drawings, random }) {
    const id = drawings[Math.floor(random() * drawings.length)];
    const opened = await fetch(`${server.base}/api/drawings/${id}`).catch(() => null);
    if (!opened?.ok) return;
    const { drawing, revision } = (await opened.json()) as {
      drawing: { sheets: { id: string; locked: boolean }[] };
      revision: number;
    };
    const [{ id: sheet, locked }] = drawing.sheets;
    const step = { step: 'setSheet', id: sheet, before: { locked }, after: { locked: !locked } };
    await fetch(`${server.base}/api/drawings/${id}/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        base: revision,
        changes: [{ id: `e-${Math.floor(random() * 1e12)}`, label: 'Lock', steps: [step] }],
      }),
    }).catch(() => undefined);
  },
};

/** Someone looks under Safe-keeping, and puts a sound backup back where something is damaged. */
export async function looked(world: World): Promise<void> {
  const now = (await (await fetch(`${world.server.base}/api/keeping`)).json()) as Keeping;
  const report = now.trouble ? null : (await keep(world, { deed: 'check' })).report;
  if (now.trouble || report!.findings.some((f) => f.what !== 'picture')) await restoreNewest(world);
}

/** What was put aside is never thrown away by the program: whoever looks after a small disk does so now and then. */
function cleared({ place, isSmall }: World): void {
  const aside = path.join(place, 'aside');
  if (!isSmall || !existsSync(aside)) return;
  for (const name of readdirSync(aside).sort().slice(0, -2)) rmSync(path.join(aside, name), { recursive: true });
}

/** Mends what a fault that broke off may have left. */
export async function mended(world: World): Promise<void> {
  rmSync(path.join(world.place, '..', 'filler'), { force: true });
  cleared(world);
  world.cut(false);
  const isUp = await fetch(`${world.server.base}/api/health`).then(
    (r) => r.ok,
    () => false,
  );
  if (!isUp) await world.server.start();
  const { trouble } = (await (await fetch(`${world.server.base}/api/keeping`)).json()) as Keeping;
  if (trouble && existsSync(world.place)) await restoreNewest(world);
}

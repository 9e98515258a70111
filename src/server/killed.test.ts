import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { seeded } from '@/core/seeded';

/** How often it is killed; more often where there is time. */
const KILLS = Number(process.env.KILLS ?? 7);
const root = path.join(__dirname, '..', '..');
const data = mkdtempSync(path.join(tmpdir(), 'yellow-quill-killed-'));
afterAll(() => rmSync(data, { recursive: true, force: true }));

type Life = { opened: number; whole: boolean; kept: number };

/** Lets the keeper make so many changes, and go on for so long, then kills it. */
function live(changes: number, ms: number): Promise<Life> {
  const child = spawn(process.execPath, ['--import', 'tsx', path.join(__dirname, 'test', 'keeper.ts')], {
    cwd: root,
    env: { ...process.env, YELLOW_QUILL_DATA: data },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let [out, error] = ['', ''];
  child.stderr.on('data', (d) => (error += d));
  child.stdout.on('data', (d) => {
    const before = out.split('\n').length;
    out += d;
    // The first line says that it has opened.
    if (before <= changes + 1 && out.split('\n').length > changes + 1) setTimeout(() => child.kill('SIGKILL'), ms);
  });
  return new Promise((done, fail) =>
    child.on('exit', (_, signal) => {
      if (signal !== 'SIGKILL') return fail(new Error(error));
      const [, opened, how] = /^opened (\d+) (.*)$/m.exec(out)!;
      const kept = [...out.matchAll(/^kept (\d+)$/gm)].at(-1)?.[1];
      done({ opened: Number(opened), whole: how === 'whole', kept: Number(kept ?? opened) });
    }),
  );
}

test(
  `killed at ${KILLS} random moments of a run of changes: all that was acknowledged is there, and the drawing opens`,
  async () => {
    const random = seeded(200);
    let acknowledged = 0;
    for (let i = 0; i < KILLS; i++) {
      const { opened, whole, kept } = await live(Math.floor(random() * 14), random() * 20);
      expect(whole).toBe(true);
      expect(opened).toBeGreaterThanOrEqual(acknowledged);
      // At most the one that was under way came to be kept without a word.
      expect(opened).toBeLessThanOrEqual(acknowledged + 1);
      acknowledged = kept;
    }
    expect(acknowledged).toBeGreaterThan(KILLS);
  },
  KILLS * 30_000,
);

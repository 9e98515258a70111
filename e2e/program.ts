import { spawn, type ChildProcess } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import { createServer } from 'node:net';

/**
 * Parts of the browser's own window that are pages too: each context would start processes for them, which cost a third
 * of all its work. The last list given counts, so what Playwright turns off and these pages could meet is told again.
 */
const without = [
  'PreloadTopChromeWebUI',
  'InitialWebUI',
  'WebUIReloadButton',
  'WebUILocationBar',
  'WebUISplitTabsButton',
  'WebUIPinnedToolbarActions',
  'WebUIToolbar',
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'WebUIOmniboxFullPopup',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsUpgrades',
  'MediaRouter',
  'OptimizationHints',
  'PaintHolding',
  'ThirdPartyStoragePartitioning',
];

/** How the browser is started for tests, measurements and pictures alike: Debian's Chromium, nothing fetched. */
export const launchOptions = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    `--disable-features=${without.join(',')}`,
  ],
};

/** Connections that stay open longer than a test pauses: none is closed just as it is used again. */
const serverOptions = ['-H', '127.0.0.1', '--keepAliveTimeout', '120000'];

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

/** The built program on a data folder and port of its own. It can be killed and started again. */
export class Program {
  private child: ChildProcess | undefined;
  private port = 0;

  /** `log`: a file that gets all that the program says. */
  constructor(
    private readonly data: string,
    private readonly log?: string,
  ) {}

  get base(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    this.port ||= await freePort();
    const next = ['node_modules/next/dist/bin/next', 'start', ...serverOptions, '-p', String(this.port)];
    const said = this.log ? openSync(this.log, 'a') : 'ignore';
    this.child = spawn(process.execPath, next, {
      env: { ...process.env, YELLOW_QUILL_DATA: this.data },
      stdio: ['ignore', said, said],
    });
    if (typeof said === 'number') closeSync(said);
    for (let i = 0; i < 200; i++) {
      if (
        await fetch(`${this.base}/api/health`).then(
          (r) => r.ok,
          () => false,
        )
      )
        return;
      await new Promise((r) => setTimeout(r, 150));
    }
    throw new Error('the program did not start');
  }

  stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    return new Promise((resolve) => {
      if (!this.child || this.child.exitCode !== null || this.child.signalCode !== null) return resolve();
      this.child.once('exit', () => resolve());
      this.child.kill(signal);
    });
  }
}

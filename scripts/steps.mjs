/** The steps that the commands share. Only Node's own modules are imported here: nothing may be installed yet. */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { compileAhead } from './compileAhead.mjs';

export const root = fileURLToPath(new URL('..', import.meta.url));
const bin = (name) => path.join(root, 'node_modules', '.bin', name);
const say = (text) => process.stdout.write(`\n== ${text}\n`);

process.chdir(root);
process.env.NEXT_TELEMETRY_DISABLED = '1';

/** Runs a command to its end, its output shown. Gives whether it succeeded. */
export function run(command, args, env = {}) {
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  return status === 0;
}

/** The same beside other work: what it says is shown at its end. */
function runBeside(command, args, env = {}) {
  const child = spawn(command, args, { env: { ...process.env, ...env } });
  const said = [];
  for (const out of [child.stdout, child.stderr]) out.on('data', (part) => said.push(part));
  return new Promise((resolve) => {
    child.on('error', () => resolve(false));
    child.on('close', (status) => {
      process.stdout.write(Buffer.concat(said));
      resolve(status === 0);
    });
  });
}

export const toolBeside = (tool, args, env) => runBeside(bin(tool), args, env);
export const runTool = (tool, args, env) => run(bin(tool), args, env);

/** Runs a server until it ends; it gets the signals that this process gets. */
export function serve(command, args, env = {}) {
  const child = spawn(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code, signal) => process.exit(code ?? (signal ? 0 : 1)));
}

/** Installs from the lock file, unless that very lock file was installed whole before. */
export function ensureInstalled() {
  const stamp = path.join(root, '.installed');
  const wanted = createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .update(process.version)
    .digest('hex');
  const isWhole = existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted && existsSync(bin('next'));
  if (isWhole) return;
  say('Installing from the lock file (a few minutes the first time)');
  // What has to be compiled is compiled on all cores.
  if (!run('npm', ['ci', '--no-audit', '--no-fund'], { JOBS: 'max' }))
    throw new Error('npm ci failed; see its words above, and try again.');
  writeFileSync(stamp, wanted);
}

/** The path of Chromium; installed from Debian's packages when this runs as root. */
export function ensureChromium() {
  const known = () =>
    [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser'].find((p) => p && existsSync(p));
  if (!known()) installPackage('chromium');
  const found = known();
  if (found) return found;
  throw new Error(
    'Chromium is needed for the tests in the browser. Install it (Debian: apt-get install chromium), or set CHROMIUM to its path.',
  );
}

/** Poppler's tools, which read the PDF files of the tests; installed likewise. */
export function ensurePoppler() {
  const isThere = () => !spawnSync('pdftocairo', ['-v']).error;
  if (!isThere()) installPackage('poppler-utils');
  if (!isThere())
    throw new Error(
      'Poppler’s tools are needed for the tests of PDF files. Install them (Debian: apt-get install poppler-utils).',
    );
}

/** Installs one of Debian's packages, where this runs as root on such a system. */
function installPackage(name) {
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return;
  say(`Installing ${name} from Debian’s packages`);
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  if (run('apt-get', ['update', '-qq'], env))
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], env);
}

/** The newest change below a folder, in ms. */
function newest(place) {
  const s = statSync(place);
  if (!s.isDirectory()) return s.mtimeMs;
  return Math.max(s.mtimeMs, ...readdirSync(place).map((name) => newest(path.join(place, name))));
}

/** Whether the last build is newer than all that it is made of. */
function isBuilt() {
  const jobs = ['work.cjs', 'keep.cjs'].map((name) => path.join(root, '.jobs', name));
  const built = [...['BUILD_ID', 'early/show.js'].map((name) => path.join(root, '.next', name)), ...jobs];
  const sources = ['src', 'package-lock.json', 'next.config.ts', 'tsconfig.json'].map((p) => path.join(root, p));
  const newestSource = Math.max(...sources.map(newest));
  return built.every((file) => existsSync(file) && statSync(file).mtimeMs > newestSource);
}

export const ensureBuilt = () => isBuilt() || buildAll();
/** The same beside other work. */
export const ensureBuiltBeside = async () => isBuilt() || runBeside(process.execPath, ['scripts/build.mjs']);

/** The pages, what they run before the program has come, and what the server does in processes of its own. */
export function buildAll() {
  say('Building');
  if (!makeComponentStyles() || !runTool('next', ['build'])) return false;
  compileAhead(root);
  return ['scripts/early.mjs', 'scripts/jobs.mjs'].every((script) => run(process.execPath, [script]));
}

export const makeComponentStyles = () => runTool('tsx', ['scripts/componentStyles.tsx']);
const demoData = ['tsx', ['demo/make.ts']];
export const makeDemoData = () => runTool(...demoData);
export const makeDemoDataBeside = (folder) => toolBeside(...demoData, { YELLOW_QUILL_DATA: folder });

/** A port that is free just now. */
export const freePort = () =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });

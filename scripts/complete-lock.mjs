/**
 * Completes package-lock.json. Registries that do not list the optional packages of other systems leave holes in it,
 * and `npm ci` refuses a lock file with holes. Each hole gets an entry that says which system it is for, so that it
 * is passed over here.
 */
import { readFileSync, writeFileSync } from 'node:fs';

const file = new URL('../package-lock.json', import.meta.url);
const lock = JSON.parse(readFileSync(file, 'utf8'));

/** The place in the lock file that `name`, asked for by the package at `from`, resolves to; null when there is none. */
function resolve(from, name) {
  for (let at = from; ;) {
    const place = `${at ? `${at}/` : ''}node_modules/${name}`;
    if (lock.packages[place]) return place;
    if (!at) return null;
    const up = at.lastIndexOf('/node_modules/');
    at = up < 0 ? '' : at.slice(0, up);
  }
}

const systems = [
  'aix',
  'android',
  'darwin',
  'freebsd',
  'linux',
  'netbsd',
  'openbsd',
  'openharmony',
  'sunos',
  'win32',
  'wasm32',
];
const machines = ['arm64', 'arm', 'x64', 'ia32', 'loong64', 'mips64el', 'ppc64', 'riscv64', 's390x', 'wasm32'];

let added = 0;
for (const [from, entry] of Object.entries(lock.packages)) {
  for (const [name, range] of Object.entries(entry.optionalDependencies ?? {})) {
    if (resolve(from, name)) continue;
    const words = name.split(/[-/@.]/);
    const os = systems.find((s) => words.includes(s)) ?? 'none';
    const cpu = machines.find((m) => words.includes(m)) ?? 'none';
    lock.packages[`node_modules/${name}`] = {
      version: range.replace(/^[^\d]*/, '') || '0.0.0',
      optional: true,
      os: [os === 'wasm32' ? 'none' : os],
      cpu: [cpu],
      ...(entry.dev ? { dev: true } : {}),
    };
    added++;
  }
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(file, `${JSON.stringify(lock, null, 2)}\n`);
process.stdout.write(`package-lock.json: ${added} entries added\n`);

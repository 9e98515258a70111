import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { Program } from '../e2e/program';
import { seeded } from '../src/core/seeded';
import { closeDatabase } from '../src/server/database';
import { keepDrawing } from '../src/server/drawings';
import { wanderingDrawing } from '../src/core/test/drawings';

/**
 * Requests that nobody would send, over every route there is: none may be answered with an error of ours, hang, or leave the
 * server larger. `tsx soak/fuzz.ts --count 50000 --seed 1`
 */

const { values } = parseArgs({
  options: { count: { type: 'string', default: '50000' }, seed: { type: 'string', default: '1' } },
});
const AT_ONCE = 6;
const SLOW_MS = 10_000;

type Route = { readonly path: string; readonly methods: readonly string[] };

/** All routes with their methods, from the files that they lie in. */
const routes = (folder: string, at = '/api'): Route[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry): Route[] => {
    const inside = path.join(folder, entry.name);
    if (entry.isDirectory()) return routes(inside, `${at}/${entry.name}`);
    if (entry.name !== 'route.ts') return [];
    const methods = [...readFileSync(inside, 'utf8').matchAll(/^export const ([A-Z]+) =/gm)].map((m) => m[1]);
    return [{ path: at, methods }];
  });

async function main(): Promise<void> {
  const random = seeded(Number(values.seed));
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const place = mkdtempSync(path.join(tmpdir(), 'yellow-quill-fuzz-'));
  process.env.YELLOW_QUILL_DATA = place;
  const ids = [1, 2, 3].map((n) => keepDrawing(`Fuzz ${n}`, wanderingDrawing(5, 3, n)).id);
  closeDatabase();
  const server = new Program(place, path.join(tmpdir(), 'yellow-quill-fuzz.log'));
  await server.start();
  const all = routes(path.join(process.cwd(), 'src/app/api'));
  const odd = [
    '',
    '..',
    '%2e%2e%2f',
    '0',
    '-1',
    'a'.repeat(3_000),
    '%00',
    "' or 1=1 --",
    '__proto__',
    '𝔞',
    '1e99',
    'null',
  ];
  const value = (depth = 0): unknown => {
    const kind = Math.floor(random() * (depth > 3 ? 6 : 8));
    return [
      () => pick(odd),
      () => (random() - 0.5) * 10 ** Math.floor(random() * 20),
      () => null,
      () => random() < 0.5,
      () => pick(ids),
      () => Math.floor(random() * 10),
      () => Array.from({ length: Math.floor(random() * 5) }, () => value(depth + 1)),
      () => Object.fromEntries(Array.from({ length: Math.floor(random() * 5) }, () => [pick(names), value(depth + 1)])),
    ][kind]();
  };
  const names = [
    'base',
    'changes',
    'id',
    'ids',
    'deed',
    'label',
    'steps',
    'step',
    'sheet',
    'item',
    'title',
    'page',
    'width',
    'height',
    'unit',
    'dpi',
    'name',
    'revision',
    'format',
    'backup',
    'place',
    'colour',
    '__proto__',
    'constructor',
  ];
  const step = () => ({
    step: pick(['setSheet', 'insertItem', 'removeItem', 'setLine', 'flat', 'none']),
    sheet: 's0',
    id: pick(['l1', 's0', 'no']),
    at: { sheet: 's0', index: value() },
    before: value(),
    after: value(),
    item: value(),
  });
  const body = (): { body?: string | Uint8Array; type: string } => {
    const what = random();
    if (what < 0.1) return { type: 'application/json' };
    if (what < 0.2)
      return {
        type: 'application/octet-stream',
        body: Uint8Array.from({ length: Math.floor(random() * 3_000) }, () => random() * 256),
      };
    if (what < 0.25) return { type: 'application/json', body: '{"base":' };
    if (what < 0.3)
      return {
        type: 'image/svg+xml',
        body: `<svg xmlns="http://www.w3.org/2000/svg">${'<g>'.repeat(random() * 400)}${String(pick(odd))}`,
      };
    if (what < 0.5)
      return {
        type: 'application/json',
        body: JSON.stringify({
          base: Math.floor(random() * 4),
          changes: [{ id: pick(['x', 'c1', pick(odd)]), label: 'Fuzz', steps: [step(), step()] }],
        }),
      };
    return { type: pick(['application/json', 'text/plain', 'multipart/form-data']), body: JSON.stringify(value()) };
  };
  // What would end the soak itself, or wait for a device, is left to its own tests.
  const isApart = (route: string, method: string): boolean => method === 'POST' && /scans$/.test(route);
  const faults: string[] = [];
  const seen = new Map<number, number>();
  const one = async (): Promise<void> => {
    const { path: route, methods } = pick(all);
    const method = random() < 0.05 ? pick(['GET', 'POST', 'PUT', 'PATCH', 'DELETE']) : pick(methods);
    if (isApart(route, method)) return;
    const filled = route.replace(/\[\w+\]/g, () => encodeURI(String(random() < 0.6 ? pick(ids) : pick(odd))) || 'x');
    const query =
      random() < 0.4
        ? `?${pick(['before', 'from', 'format', 'dpi', 'size', 'ids', 'title', 'at', 'quality'])}=${encodeURIComponent(String(value()))}`
        : '';
    const { body: content, type } = body();
    const begin = performance.now();
    const response = await fetch(`${server.base}${filled}${query}`, {
      method,
      redirect: 'manual',
      signal: AbortSignal.timeout(60_000),
      headers: { 'content-type': type, ...(random() < 0.05 && { origin: 'http://elsewhere.example' }) },
      ...(method !== 'GET' && content !== undefined && { body: content as BodyInit }),
    }).catch((error: Error) => error);
    if (response instanceof Error) return void faults.push(`${method} ${filled.slice(0, 120)}: ${response.message}`);
    await response.arrayBuffer();
    seen.set(response.status, (seen.get(response.status) ?? 0) + 1);
    if (response.status === 500 || performance.now() - begin > SLOW_MS)
      faults.push(
        `${method} ${filled.slice(0, 120)}${query.slice(0, 80)} ${String(content).slice(0, 200)}: ${response.status} in ${Math.round(performance.now() - begin)} ms`,
      );
  };
  const memory = async (): Promise<number> =>
    Math.round(((await (await fetch(`${server.base}/api/health`)).json()) as { memory: number }).memory / 1e6);
  const count = Number(values.count);
  const sizes: number[] = [];
  for (let done = 0; done < count;) {
    const round = Math.min(count - done, Math.ceil(count / 5));
    let left = round;
    await Promise.all(
      Array.from({ length: AT_ONCE }, async () => {
        while (left-- > 0) await one();
      }),
    );
    done += round;
    sizes.push(await memory());
  }
  console.log(
    `${count} requests: ${[...seen]
      .sort()
      .map(([s, n]) => `${s} ${n}`)
      .join(', ')}; memory ${sizes.join(', ')} MB; ${faults.length} faults`,
  );
  for (const fault of faults.slice(0, 20)) console.log(`  ${fault}`);
  await server.stop('SIGKILL');
  rmSync(place, { recursive: true, force: true });
  process.exit(faults.length === 0 ? 0 : 1);
}

void main();

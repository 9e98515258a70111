/**
 * Puts what a drawing's page runs before any of the program has come into files: a painter of one piece, which it can start by its
 * address alone, and the scripts that stand in the page (`src/bench/early`).
 */
import { build } from 'esbuild';
import { createHash } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

/** Schemas are a third of the painter's work of coming to life, and it reads nothing that was not checked. */
const withoutSchemas = {
  name: 'without-schemas',
  setup({ onResolve, onLoad }) {
    onResolve({ filter: /^zod$/ }, () => ({ path: 'zod', namespace: 'without-schemas' }));
    onLoad({ filter: /./, namespace: 'without-schemas' }, () => ({
      contents: `
        let isLoading = true;
        queueMicrotask(() => (isLoading = false));
        const made = () => {
          if (isLoading) return schema;
          throw new Error('A painter checks nothing.');
        };
        const schema = new Proxy(() => undefined, { get: made, apply: made });
        export const z = schema;`,
    }));
  },
};

async function bundled(entry, options) {
  const { outputFiles } = await build({
    absWorkingDir: root,
    entryPoints: [entry],
    bundle: true,
    minify: true,
    write: false,
    format: 'iife',
    target: 'es2022',
    logLevel: 'warning',
    ...options,
  });
  return outputFiles[0].text;
}

const painter = await bundled('src/workers/tiles.worker.ts', { plugins: [withoutSchemas] });
const name = `painter-${createHash('sha256').update(painter).digest('hex').slice(0, 16)}.js`;
writeFileSync(path.join(root, '.next', 'static', 'chunks', name), painter);
const define = { PAINTER: JSON.stringify(`/_next/static/chunks/${name}`) };
mkdirSync(path.join(root, '.next', 'early'), { recursive: true });
for (const part of ['begin', 'show'])
  writeFileSync(
    path.join(root, '.next', 'early', `${part}.js`),
    await bundled(`src/bench/early/${part}.ts`, { define }),
  );
process.stdout.write(`Begins before the program: ${Math.round(painter.length / 1024)} kB\n`);

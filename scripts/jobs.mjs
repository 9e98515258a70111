/**
 * Puts what the server does in threads of its own into one file that Node runs as it is: `node scripts/jobs.mjs [file]`, by
 * default where the built program looks for it.
 */
import { build } from 'esbuild';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

await build({
  absWorkingDir: root,
  entryPoints: ['src/server/jobs/work.ts'],
  outfile: process.argv[2] ?? path.join(root, '.jobs', 'work.cjs'),
  bundle: true,
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  external: ['@napi-rs/canvas', 'css-tree', 'fontkit', 'paper', 'pdfkit', 'sharp'],
  logLevel: 'warning',
});

/**
 * Puts what the server does in processes of its own into files that Node runs as they are: `node scripts/jobs.mjs`
 * both, where the built program looks for them; `node scripts/jobs.mjs file` the jobs' alone, there.
 */
import { build } from 'esbuild';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

const bundle = (entry, outfile) =>
  build({
    absWorkingDir: root,
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    external: [
      '@aws-sdk/client-s3',
      '@napi-rs/canvas',
      'better-sqlite3',
      'css-tree',
      'fontkit',
      'paper',
      'pdfkit',
      'sharp',
    ],
    logLevel: 'warning',
  });

const [only] = process.argv.slice(2);
await bundle('src/server/jobs/work.ts', only ?? path.join(root, '.jobs', 'work.cjs'));
if (!only) await bundle('src/server/keeping/keep.ts', path.join(root, '.jobs', 'keep.cjs'));

/** `npm run check`, `npm run backup`, `npm run restore -- [name]`: safe-keeping of the data folder from the command line. */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { ensureInstalled, root, run } from './steps.mjs';

ensureInstalled();
const script = path.join(root, '.jobs', 'keep.cjs');
const isThere = existsSync(script) || run(process.execPath, ['scripts/jobs.mjs']);
process.exit(isThere && run(process.execPath, [script, ...process.argv.slice(2)]) ? 0 : 1);

/** `npm run demo`: from a fresh checkout to the running program with its demo data. */
import { ensureBuilt, ensureInstalled, makeDemoData, root, serve } from './steps.mjs';

try {
  ensureInstalled();
  if (!makeDemoData()) throw new Error('The demo data could not be made.');
  if (!ensureBuilt()) throw new Error('The build failed.');
} catch (error) {
  console.error(`\n${error.message}`);
  process.exit(1);
}
const host = process.env.HOST || '127.0.0.1';
const port = process.env.PORT || '3000';
process.stdout.write(
  `\nYellow Quill is at http://${host}:${port} (Ctrl C ends it; drawings are kept in ${process.env.YELLOW_QUILL_DATA || 'data'})\n`,
);
serve(process.execPath, [`${root}node_modules/next/dist/bin/next`, 'start', '-H', host, '-p', port]);

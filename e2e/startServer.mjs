/** Makes the demo data in a fresh data folder and starts the built program on it. */
import { makeDemoData, root, serve } from '../scripts/steps.mjs';

if (!makeDemoData()) process.exit(1);
// Connections stay open longer than a test pauses: none is closed just as it is used again.
const options = ['-H', '127.0.0.1', '--keepAliveTimeout', '120000', '-p', process.env.PORT];
serve(process.execPath, [`${root}node_modules/next/dist/bin/next`, 'start', ...options]);

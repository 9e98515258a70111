/** Makes the demo data in a fresh data folder and starts the built program on it. */
import { makeDemoData, root, serve } from '../scripts/steps.mjs';

if (!makeDemoData()) process.exit(1);
serve(process.execPath, [`${root}node_modules/next/dist/bin/next`, 'start', '-H', '127.0.0.1', '-p', process.env.PORT]);

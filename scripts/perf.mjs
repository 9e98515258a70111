/** `npm run perf`: measures, and prints JSON. */
import { ensureBuilt, ensureChromium, ensureInstalled, runTool } from './steps.mjs';

ensureInstalled();
const CHROMIUM = ensureChromium();
if (!ensureBuilt()) process.exit(1);
process.exit(runTool('tsx', ['perf/run.ts'], { CHROMIUM }) ? 0 : 1);

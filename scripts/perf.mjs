/** `npm run perf`: measures, and prints JSON; `npm run perf -- crowd`: very many lines alone. */
import { ensureBuilt, ensureChromium, ensureInstalled, runTool } from './steps.mjs';

ensureInstalled();
const CHROMIUM = ensureChromium();
if (!ensureBuilt()) process.exit(1);
process.exit(runTool('tsx', ['perf/run.ts', ...process.argv.slice(2)], { CHROMIUM }) ? 0 : 1);

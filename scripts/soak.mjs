/**
 * `npm run soak -- --minutes 30 --seed 1`: hands on several drawings and browsers while everything goes wrong; prints what came of
 * it, and fails where anything was lost. `--seeds 20` does so for as many seeds, one after the other.
 */
import { ensureBuilt, ensureInstalled, runTool } from './steps.mjs';

ensureInstalled();
if (!ensureBuilt()) process.exit(1);
process.exit(runTool('tsx', ['soak/run.ts', ...process.argv.slice(2)]) ? 0 : 1);

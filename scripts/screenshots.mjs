/** `npm run screenshots`: takes the pictures in docs/screenshots anew. */
import { ensureBuilt, ensureChromium, ensureInstalled, runTool } from './steps.mjs';

ensureInstalled();
const CHROMIUM = ensureChromium();
if (!ensureBuilt()) process.exit(1);
process.exit(runTool('tsx', ['demo/screenshots.ts'], { CHROMIUM }) ? 0 : 1);

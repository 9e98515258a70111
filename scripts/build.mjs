/** `npm run build`: the pages, and what the server does in processes of its own. */
import { buildAll, ensureInstalled } from './steps.mjs';

ensureInstalled();
process.exit(buildAll() ? 0 : 1);

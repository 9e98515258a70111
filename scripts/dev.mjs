/** `npm run dev`: for people who change the program; pages follow the code. */
import { ensureInstalled, makeComponentStyles, makeDemoData, root, serve } from './steps.mjs';

ensureInstalled();
if (!makeDemoData() || !makeComponentStyles()) process.exit(1);
serve(process.execPath, [
  `${root}node_modules/next/dist/bin/next`,
  'dev',
  '-H',
  process.env.HOST || '127.0.0.1',
  '-p',
  process.env.PORT || '3000',
]);

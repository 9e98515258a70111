/**
 * Tells the browser which built files are nearly all used as soon as they come: it compiles these whole, beside the page's
 * own work, where it would compile each function by itself, in the page's time, when it is first called. They are the
 * framework's own and those of the bench, which every page asks for; not what workers load too, for they have no beside.
 * Source: explicit compile hints, v8.dev.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const HINT = '//# allFunctionsCalledOnLoad\n';

/** The files that a file asks for together, from the names that stand in it. */
const askedIn = (text) =>
  [...text.matchAll(/Promise\.all\(\[([^\]]{1,20000})\]/g)].flatMap(([, list]) =>
    [...list.matchAll(/"(static\/chunks\/[^"]+\.js)"/g)].map(([, file]) => file),
  );

/** The files that workers load, from the names that stand where these are started. */
const workersIn = (text) =>
  [...text.matchAll(/turbopack-worker-[\w-]{1,40}\.js",\[([^\]]{1,20000})\]/g)].flatMap(([, list]) =>
    [...list.matchAll(/"(static\/chunks\/(?!turbopack-)[^"]+\.js)"/g)].map(([, file]) => file),
  );

export function compileAhead(root) {
  const built = (file) => path.join(root, '.next', file);
  const { rootMainFiles } = JSON.parse(readFileSync(built('build-manifest.json'), 'utf8'));
  const asked = rootMainFiles.flatMap((file) => askedIn(readFileSync(built(file), 'utf8')));
  const chunks = readdirSync(built('static/chunks')).filter((name) => name.endsWith('.js'));
  const ofWorkers = new Set(chunks.flatMap((name) => workersIn(readFileSync(built(`static/chunks/${name}`), 'utf8'))));
  const files = [...new Set([...rootMainFiles, ...asked])].filter((file) => !ofWorkers.has(file));
  for (const file of files) {
    const text = readFileSync(built(file), 'utf8');
    if (!text.startsWith(HINT)) writeFileSync(built(file), HINT + text);
  }
  if (asked.length === 0) throw new Error('The bench was not found among what is asked for at first.');
  process.stdout.write(`Compiled as they come: ${files.length} files\n`);
}

/**
 * Tells the browser which built files are nearly all used as soon as they come: it compiles these whole, beside the page's
 * own work, where it would compile each function by itself, in the page's time, when it is first called. They are the
 * framework's own and those of the bench, which every page asks for; not what workers load too, for they have no beside.
 * Source: explicit compile hints, v8.dev.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const HINT = '//# allFunctionsCalledOnLoad\n';

/** Where a file asks for several together, and where it starts a worker that loads several. */
const TOGETHER = /Promise\.all\(\[([^\]]{1,20000})\]/g;
const FOR_WORKERS = /turbopack-worker-[\w-]{1,40}\.js",\[([^\]]{1,20000})\]/g;

/** The files that a built text lists in such places; the runtime, which all begin with, is not among them. */
const listed = (text, places) =>
  [...text.matchAll(places)].flatMap(([, list]) =>
    [...list.matchAll(/"(static\/chunks\/(?!turbopack-)[^"]+\.js)"/g)].map(([, file]) => file),
  );

export function compileAhead(root) {
  const built = (file) => path.join(root, '.next', file);
  const { rootMainFiles } = JSON.parse(readFileSync(built('build-manifest.json'), 'utf8'));
  const asked = rootMainFiles.flatMap((file) => listed(readFileSync(built(file), 'utf8'), TOGETHER));
  const chunks = readdirSync(built('static/chunks')).filter((name) => name.endsWith('.js'));
  const ofWorkers = new Set(
    chunks.flatMap((name) => listed(readFileSync(built(`static/chunks/${name}`), 'utf8'), FOR_WORKERS)),
  );
  const files = [...new Set([...rootMainFiles, ...asked])].filter((file) => !ofWorkers.has(file));
  for (const file of files) {
    const text = readFileSync(built(file), 'utf8');
    if (!text.startsWith(HINT)) writeFileSync(built(file), HINT + text);
  }
  if (asked.length === 0) throw new Error('The bench was not found among what is asked for at first.');
  process.stdout.write(`Compiled as they come: ${files.length} files\n`);
}

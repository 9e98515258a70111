import { spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { Problem } from './problem';

/** SVG is text, and costs to be read: more than this is no drawing that someone made. */
const MOST_BYTES = 12 * 1024 * 1024;
/** How long the longer side of an SVG is made when it becomes a picture, px. */
const LONGEST = 2400;
/** A text is known as SVG by its root element, which stands within so many bytes. */
const HEAD = 4096;
const GZIP = [0x1f, 0x8b];

const RENDER_MS = 6_000;
const WAIT_MS = 2_500;
const MOST_MEMORY = 800 * 1024 * 1024;
const LOOK_MS = 50;

const unpacked = promisify<Buffer, { maxOutputLength: number }, Buffer>(gunzip);

/**
 * Whether bytes would be read as SVG, or as one that is packed. It is asked before the picture library sees them: that
 * would read and draw it in this process, where nothing can stop it.
 */
export function looksLikeSvg(head: Buffer): boolean {
  if (head[0] === GZIP[0] && head[1] === GZIP[1]) return true;
  const text = withoutMark(head).subarray(0, HEAD);
  // A picture of another kind may well name SVG somewhere; none begins with text.
  return text.subarray(0, 8).every((b) => b >= 9 && b < 128) && text.toString('latin1').toLowerCase().includes('<svg');
}

const MARK = Buffer.from([0xef, 0xbb, 0xbf]);
/** A text without its byte order mark, which the renderer does not know. */
const withoutMark = (text: Buffer): Buffer => (text.subarray(0, 3).equals(MARK) ? text.subarray(3) : text);

/**
 * An SVG as PNG, without any of its scripts and links. It is drawn in a process of its own, with a bound on time and memory,
 * one at a time, so that no file can hold up the server.
 * @throws Problem 400 damaged, 413 too large or too much to draw, 415 filters, 503 when others are being drawn for too long.
 */
export async function svgAsPng(file: string): Promise<Buffer> {
  const bytes = await plainSvg(await readFile(file));
  refuseFilters(bytes.toString('latin1'));
  return inTurn(() => rendered(bytes));
}

async function plainSvg(bytes: Buffer): Promise<Buffer> {
  const tooLarge = (): Problem =>
    new Problem(
      413,
      'too-large',
      'The SVG is larger than 12 MB. Nothing was brought in; save it smaller and try again.',
    );
  if (bytes.length > MOST_BYTES) throw tooLarge();
  if (bytes[0] !== GZIP[0] || bytes[1] !== GZIP[1]) return withoutMark(bytes);
  try {
    const plain = await unpacked(bytes, { maxOutputLength: MOST_BYTES });
    // Packed again within: nobody saves it so.
    if (!looksLikeSvg(plain) || plain[0] === GZIP[0]) throw damaged();
    return withoutMark(plain);
  } catch (error) {
    throw error instanceof Problem
      ? error
      : (error as { code?: string }).code === 'ERR_BUFFER_TOO_LARGE'
        ? tooLarge()
        : damaged();
  }
}

const damaged = (): Problem =>
  new Problem(400, 'broken', 'The picture is damaged or cut short. Nothing was brought in.');

/** A few filters keep a renderer at work for minutes, and a picture to trace needs none. */
function refuseFilters(text: string): void {
  if (
    /<(?:[a-z_][\w.-]{0,40}:)?filter[\s/>]/i.test(text) ||
    /(?<![\w-])filter\s{0,20}[:=](?!\s{0,20}["']?\s{0,20}none)/i.test(text)
  )
    throw new Problem(
      415,
      'filters',
      'The SVG uses filters (blurs, shadows and the like), which are not drawn here. Nothing was brought in; save it without them, or as PNG.',
    );
}

let last: Promise<unknown> = Promise.resolve();

/** Does one piece of work after the other; who would wait too long is told to come again. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  let isLate = false;
  const turn = last.then(() => {
    if (isLate) throw busy();
    clearTimeout(timer);
    return work();
  });
  last = turn.catch(() => undefined);
  let timer: ReturnType<typeof setTimeout>;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => {
      isLate = true;
      reject(busy());
    }, WAIT_MS);
  });
  return Promise.race([turn, late]);
}

const busy = (): Problem =>
  new Problem(
    503,
    'busy',
    'Other SVG pictures are being drawn just now. Nothing was brought in; try again in a moment.',
  );

const script = path.join(/* turbopackIgnore: true */ process.cwd(), 'src', 'server', 'svgRenderer.mjs');

function rendered(svg: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [script, String(LONGEST), String(LONGEST * LONGEST * 4)], {
      stdio: ['pipe', 'pipe', 'ignore'],
      env: { PATH: process.env.PATH, NODE_ENV: 'production', VIPS_CONCURRENCY: '1' } as NodeJS.ProcessEnv,
    });
    let stopped: Problem | null = null;
    const stop = (): void => {
      stopped ??= new Problem(
        413,
        'too-much',
        'The SVG takes too long or too much memory to draw. Nothing was brought in; save it simpler, or as PNG.',
      );
      child.kill('SIGKILL');
    };
    const timer = setTimeout(stop, RENDER_MS);
    const watch = setInterval(() => void memoryOf(child.pid).then((m) => m > MOST_MEMORY && stop()), LOOK_MS);
    const chunks: Buffer[] = [];
    child.stdout.on('data', (c: Buffer) => chunks.push(c));
    child.stdin.on('error', () => undefined);
    const end = (code: number | null): void => {
      clearTimeout(timer);
      clearInterval(watch);
      const png = Buffer.concat(chunks);
      if (stopped) reject(stopped);
      else if (code !== 0 || png.length === 0) reject(damaged());
      else resolve(png);
    };
    child.on('error', () => end(-1));
    child.on('close', end);
    child.stdin.end(svg);
    if (child.pid !== undefined) lowerPriority(child.pid);
  });
}

/** Whoever is drawing now, goes before a picture that comes. */
function lowerPriority(pid: number): void {
  try {
    setPriority(pid, 10);
  } catch {
    // It has ended already, or this system does not let us.
  }
}

/** How much memory a process holds, bytes; 0 where the system does not tell. */
async function memoryOf(pid: number | undefined): Promise<number> {
  const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '');
  return Number(/^VmRSS:\s+(\d+) kB$/m.exec(status)?.[1] ?? 0) * 1024;
}

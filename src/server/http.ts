import { nanoid } from 'nanoid';
import { z } from 'zod';
import { idSchema } from '@/core/drawing/schema';
import { dataHeaders, isOurHost, isOurOrigin, isTrusted } from './door';
import { log, logError } from './log';
import { notFound, Problem, storeTrouble } from './problem';

type Handler<P> = (request: Request, params: P) => Promise<Response> | Response;

/** A route handler behind the door: host and origin are checked, and whatever goes wrong is told as JSON. */
export function route<P extends Record<string, string> = Record<string, string>>(handle: Handler<P>) {
  return async (request: Request, context: { params: Promise<P> }): Promise<Response> => {
    const [number, begin] = [nanoid(8), performance.now()];
    const answer = guarded(await answerTo(request, context, handle, number));
    answer.headers.set('x-request-id', number);
    noteAnswer(request, answer, number, performance.now() - begin);
    return answer;
  };
}

/** An answer that took longer than this is noted, ms. */
const SLOW_MS = 1_000;

function noteAnswer({ method, url }: Request, { status }: Response, number: string, ms: number): void {
  const isDeed = method !== 'GET' && method !== 'HEAD' && !url.endsWith('/changes');
  const isRefused = [401, 403, 413, 429, 503, 507].includes(status);
  const isGrave = status >= 500 || isRefused || ms > SLOW_MS;
  if (isGrave || isDeed)
    log(isGrave ? 'warn' : 'info', `${method} ${new URL(url).pathname} ${status} in ${Math.round(ms)} ms`, number);
}

async function answerTo<P>(
  request: Request,
  context: { params: Promise<P> },
  handle: Handler<P>,
  number: string,
): Promise<Response> {
  try {
    checkDoor(request);
    return await handle(request, await context.params);
  } catch (error) {
    return problemResponse(error, number);
  }
}

/** An answer with the headers of all data; a handler's own go before them. */
function guarded(answer: Response): Response {
  for (const [name, value] of Object.entries(dataHeaders))
    if (!answer.headers.has(name)) answer.headers.set(name, value);
  return answer;
}

function problemResponse(error: unknown, number: string): Response {
  if (error instanceof Problem) {
    return Response.json(
      { error: { code: error.code, message: error.message, ...error.details } },
      { status: error.status, headers: retryAfter(error) },
    );
  }
  if (error instanceof z.ZodError) {
    const first = error.issues[0];
    const message = `${first.path.join('.') || 'the request'}: ${first.message}`;
    return Response.json({ error: { code: 'bad-request', message } }, { status: 400 });
  }
  const trouble = storeTrouble(error);
  if (trouble) return problemResponse(trouble, number);
  logError(error, number);
  return Response.json(
    { error: { code: 'failed', message: 'Something went wrong here. Nothing was changed.' } },
    { status: 500 },
  );
}

const retryAfter = ({ status, details: { seconds } }: Problem): Record<string, string> =>
  status === 429 && seconds !== undefined ? { 'retry-after': String(seconds) } : {};

/**
 * A page from elsewhere must not read or change anything here.
 * @throws Problem 403, 401.
 */
function checkDoor({ method, headers }: Request): void {
  if (!isOurHost(headers)) throw new Problem(403, 'foreign-host', 'This server does not answer to that name.');
  if (!isTrusted(headers)) throw new Problem(401, 'no-token', 'This server wants its token.');
  const isReading = method === 'GET' || method === 'HEAD';
  if (!isReading && !isOurOrigin(headers))
    throw new Problem(403, 'foreign-origin', 'This request comes from another site. Nothing was changed.');
}

/**
 * The body of a request as JSON that fits `schema`.
 * @throws Problem 413 beyond `mostBytes`, 400 when it is not JSON; ZodError when it does not fit.
 */
export async function jsonBody<T>(request: Request, schema: z.ZodType<T>, mostBytes = 64_000): Promise<T> {
  const text = await boundedText(request, mostBytes);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Problem(400, 'bad-request', 'The body is not JSON.');
  }
  return schema.parse(value);
}

const boundedText = async (request: Request, mostBytes: number): Promise<string> =>
  (await boundedBytes(request, mostBytes)).toString('utf8');

/** The body of a request as it is. @throws Problem 413 beyond `mostBytes`. */
export async function boundedBytes(
  request: Request,
  mostBytes: number,
  body: ReadableStream<Uint8Array> | null = request.body,
): Promise<Buffer> {
  const tooLarge = () => new Problem(413, 'too-large', `The body is larger than ${mostBytes} bytes.`);
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) throw tooLarge();
  if (!body) return Buffer.alloc(0);
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  for await (const chunk of body as unknown as AsyncIterable<Uint8Array>) {
    bytes += chunk.length;
    if (bytes > mostBytes) throw tooLarge();
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** The id of a drawing from a path. @throws Problem 404 for what cannot be one. */
export const drawingId = (params: { id: string }): string => idFrom(params.id, 'drawing');

/** The id of a version from a path. @throws Problem 404 for what cannot be one. */
export const versionId = (params: { v: string }): string => idFrom(params.v, 'version');

/** The number of a revision from a path. @throws Problem 404 for what cannot be one. */
export function revisionNumber({ r }: { r: string }): number {
  if (!/^\d{1,9}$/.test(r)) throw notFound('revision');
  return Number(r);
}

/** The id of a file that was asked for, from a path. @throws Problem 404 for what cannot be one. */
export const fileId = (params: { file: string }): string => idFrom(params.file, 'file');

/** What goes with a file that is saved: its name, and that nothing in it is run. */
export const fileHeaders = (name: string, mime: string): Record<string, string> => ({
  'content-type': mime,
  'content-disposition': `attachment; filename="drawing.${name.split('.').at(-1)}"; filename*=UTF-8''${encodeURIComponent(name)}`,
  'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
  'x-content-type-options': 'nosniff',
});

function idFrom(text: string, what: string): string {
  const parsed = idSchema.safeParse(text);
  if (!parsed.success) throw notFound(what);
  return parsed.data;
}

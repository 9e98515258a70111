import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { closeDatabase } from '../database';
import { endDecoding } from '../decoding';
import { endJobs } from '../jobs/pool';

/** A data folder of its own for each test file, on a real disk; gone afterwards. */
export function freshDataFolder(): void {
  let place = '';
  beforeAll(() => {
    place = mkdtempSync(path.join(tmpdir(), 'yellow-quill-test-'));
    process.env.YELLOW_QUILL_DATA = place;
  });
  afterAll(async () => {
    await endJobs();
    await endDecoding();
    closeDatabase();
    rmSync(place, { recursive: true, force: true });
  });
}

type Handler = (request: Request, context: { params: Promise<never> }) => Promise<Response>;

/** Calls a route handler as the server would. */
export async function call(
  handler: (request: Request, context: { params: Promise<never> }) => Promise<Response> | Response,
  method: string,
  params: Record<string, string> = {},
  { body, query = '', headers = {} }: { body?: unknown; query?: string; headers?: Record<string, string> } = {},
): Promise<{ status: number; json: unknown; response: Response }> {
  const isBytes = body instanceof Uint8Array;
  const request = new Request(`http://localhost:3000/api${query}`, {
    method,
    headers: { host: 'localhost:3000', ...headers },
    ...(body === undefined ? {} : { body: (isBytes ? body : JSON.stringify(body)) as BodyInit }),
  });
  // The constructor drops `host`, which a server always has.
  Object.defineProperty(request, 'headers', {
    value: new Headers({ ...Object.fromEntries(request.headers), host: 'localhost:3000', ...headers }),
  });
  const response = await (handler as Handler)(request, { params: Promise.resolve(params as never) });
  const isJson = response.headers.get('content-type')?.includes('json');
  return { status: response.status, json: isJson ? await response.json() : null, response };
}

import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { jobFile, jobOf, sizeOf } from '@/server/files/jobRows';
import { fileHeaders, fileId, route } from '@/server/http';
import { notFound } from '@/server/problem';

/** The file that came of a job. */
export const GET = route<{ file: string }>(async (_, params) => {
  const { id, name, mime, state } = jobOf(fileId(params));
  const bytes = state === 'done' ? await sizeOf(id) : null;
  if (bytes === null) throw notFound('file');
  const body = Readable.toWeb(createReadStream(jobFile(id))) as ReadableStream<Uint8Array>;
  return new Response(body, { headers: { ...fileHeaders(name, mime), 'content-length': String(bytes) } });
});

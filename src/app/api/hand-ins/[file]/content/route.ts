import { readFile } from 'node:fs/promises';
import { fileHeaders, fileId, route } from '@/server/http';
import { handedFile, handInOf } from '@/server/outbox/handIns';
import { notFound } from '@/server/problem';

/** What was handed in, byte for byte. */
export const GET = route<{ file: string }>(async (_, params) => {
  const { id, name, mime } = handInOf(fileId(params));
  const bytes = await readFile(handedFile(id)).catch(() => null);
  if (!bytes) throw notFound('file');
  return new Response(bytes as BodyInit, {
    headers: { ...fileHeaders(name, mime), 'content-length': String(bytes.length) },
  });
});

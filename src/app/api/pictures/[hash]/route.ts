import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { z } from 'zod';
import { route } from '@/server/http';
import { soundOriginal } from '@/server/originals';
import { pictureOf, shownFile, shownSizes } from '@/server/pictures';
import { notFound, Problem } from '@/server/problem';

const sizes = z.enum(['original', ...(Object.keys(shownSizes) as (keyof typeof shownSizes)[])]).default('original');

/** A picture's bytes as they came, or upright and downsized (`?size=`). They never change under their hash. */
export const GET = route<{ hash: string }>(async (request, params) => {
  if (!/^[0-9a-f]{64}$/.test(params.hash)) throw notFound('picture');
  const size = sizes.parse(new URL(request.url).searchParams.get('size') ?? undefined);
  const picture = pictureOf(params.hash);
  const headers = { 'cache-control': 'private, max-age=31536000, immutable', 'x-content-type-options': 'nosniff' };
  if (size === 'original') {
    const file = await soundOriginal(picture.hash);
    if (!file) throw new Problem(404, 'damaged', 'The picture’s file is missing, or is not as it came.');
    const stream = Readable.toWeb(createReadStream(file)) as unknown as ReadableStream;
    return new Response(stream, {
      headers: {
        ...headers,
        'content-type': picture.mime,
        'content-length': String(picture.bytes),
        // An SVG may hold anything: it is handed out to be kept, never to be run.
        'content-disposition': 'attachment',
        'content-security-policy': "default-src 'none'; sandbox",
      },
    });
  }
  const bytes = await readFile(await shownFile(picture.hash, size));
  return new Response(bytes as BodyInit, {
    headers: { ...headers, 'content-type': bytes[0] === 0x89 ? 'image/png' : 'image/jpeg' },
  });
});

import { z } from 'zod';
import { idSchema } from '@/core/drawing/schema';
import { cardOf } from '@/server/drawings';
import { route } from '@/server/http';
import { unpackPackage } from '@/server/packages/read';
import { packageOf } from '@/server/packages/write';
import { withUpload } from '@/server/uploads';

const wanted = z.array(idSchema).min(1).max(1_000);

/** Drawings as one package, for another machine. */
export const GET = route(async (request) => {
  const ids = wanted.parse((new URL(request.url).searchParams.get('ids') ?? '').split(',').filter(Boolean));
  const name = ids.length === 1 ? cardOf(ids[0]).title : `${ids.length} drawings`;
  return new Response(await packageOf(ids), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="drawings.yquill"; filename*=UTF-8''${encodeURIComponent(name)}.yquill`,
      'x-content-type-options': 'nosniff',
    },
  });
});

/** A package's bytes: its drawings, and what of them was lost. */
export const POST = route(async (request) =>
  Response.json(await withUpload(request.body, unpackPackage), { status: 201 }),
);

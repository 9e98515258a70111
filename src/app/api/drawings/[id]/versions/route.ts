import { z } from 'zod';
import { drawingId, jsonBody, route } from '@/server/http';
import { keepVersion, listVersions } from '@/server/versions';

/** A name, and the revision that is meant; the newest where none is named. */
const body = z.strictObject({
  name: z.string().trim().min(1).max(120),
  revision: z.number().int().min(0).optional(),
  note: z.string().trim().max(2_000).default(''),
});

export const GET = route<{ id: string }>((_, params) => Response.json({ versions: listVersions(drawingId(params)) }));

export const POST = route<{ id: string }>(async (request, params) => {
  const { name, revision, note } = await jsonBody(request, body);
  return Response.json(keepVersion(drawingId(params), name, revision, note), { status: 201 });
});

import { z } from 'zod';
import { duplicateDrawing } from '@/server/drawings';
import { drawingId, route } from '@/server/http';
import { revisionAt } from '@/server/journal';

const query = z.object({
  revision: z.coerce.number().int().min(0).optional(),
  at: z.coerce.number().int().min(0).max(1e15).optional(),
});

/** A copy; with `?revision=` of the drawing as it was then, with `?at=` (ms since 1970) as it was at that moment. */
export const POST = route<{ id: string }>((request, params) => {
  const { revision, at } = query.parse(Object.fromEntries(new URL(request.url).searchParams));
  const id = drawingId(params);
  return Response.json(duplicateDrawing(id, at === undefined ? revision : revisionAt(id, at)), { status: 201 });
});

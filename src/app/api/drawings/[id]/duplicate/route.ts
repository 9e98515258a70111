import { z } from 'zod';
import { duplicateDrawing } from '@/server/drawings';
import { drawingId, route } from '@/server/http';

const query = z.object({ revision: z.coerce.number().int().min(0).optional() });

/** A copy; with `?revision=` of the drawing as it was then. */
export const POST = route<{ id: string }>((request, params) => {
  const { revision } = query.parse(Object.fromEntries(new URL(request.url).searchParams));
  return Response.json(duplicateDrawing(drawingId(params), revision), { status: 201 });
});

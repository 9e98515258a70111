import { keepAside } from '@/server/drawings';
import { changesBody, MOST_CHANGE_BYTES } from '@/server/changesBody';
import { drawingId, jsonBody, route } from '@/server/http';

/** Changes that came too late for the drawing, kept as a drawing of their own. */
export const POST = route<{ id: string }>(async (request, params) => {
  const { base, changes } = await jsonBody(request, changesBody, MOST_CHANGE_BYTES);
  return Response.json(keepAside(drawingId(params), base, changes), { status: 201 });
});

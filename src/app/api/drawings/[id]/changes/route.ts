import { appendChanges } from '@/server/journal';
import { changesBody, MOST_CHANGE_BYTES } from '@/server/changesBody';
import { drawingId, jsonBody, route } from '@/server/http';

export const POST = route<{ id: string }>(async (request, params) => {
  const { base, changes } = await jsonBody(request, changesBody, MOST_CHANGE_BYTES);
  return Response.json(appendChanges(drawingId(params), base, changes));
});

import { keepAside, keepWholeAside } from '@/server/drawings';
import { changesBody, MOST_CHANGE_BYTES } from '@/server/changesBody';
import { boundedBytes, drawingId, jsonBody, route } from '@/server/http';

/** A whole drawing, packed, is no larger than this. */
const MOST_BYTES = 200 * 1024 * 1024;

/**
 * Changes that came too late for the drawing, kept as a drawing of their own; or the whole drawing as someone last saw it, packed
 * (`application/octet-stream`), where its changes alone fit nowhere any more.
 */
export const POST = route<{ id: string }>(async (request, params) => {
  if (request.headers.get('content-type') === 'application/octet-stream') {
    const bytes = await boundedBytes(request, MOST_BYTES);
    return Response.json(keepWholeAside(drawingId(params), bytes), { status: 201 });
  }
  const { base, changes } = await jsonBody(request, changesBody, MOST_CHANGE_BYTES);
  return Response.json(keepAside(drawingId(params), base, changes), { status: 201 });
});

import { cardPicture, stateKey } from '@/server/cards';
import { drawingId, revisionNumber, route } from '@/server/http';
import { stateOf } from '@/server/journal';

/** How the drawing looked at a revision, small. */
export const GET = route<{ id: string; r: string }>(async (request, params) => {
  const [id, revision] = [drawingId(params), revisionNumber(params)];
  const etag = `"${stateKey(id, revision)}"`;
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers: { etag } });
  const picture = await cardPicture(id, revision, () => stateOf(id, revision).drawing);
  return new Response(picture as BodyInit, {
    headers: { 'content-type': 'image/webp', etag, 'cache-control': 'private, no-cache' },
  });
});

import { drawingId, route } from '@/server/http';
import { stateOf } from '@/server/journal';
import { renderCard } from '@/server/render';

export const GET = route<{ id: string }>(async (request, params) => {
  const { drawing, revision } = stateOf(drawingId(params));
  const etag = `"${revision}"`;
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers: { etag } });
  return new Response((await renderCard(drawing)) as BodyInit, {
    headers: { 'content-type': 'image/webp', etag, 'cache-control': 'private, no-cache' },
  });
});

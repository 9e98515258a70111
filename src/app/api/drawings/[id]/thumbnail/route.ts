import { cardPicture, dropCardPictures, stateKey } from '@/server/cards';
import { cardOf, keepProgress } from '@/server/drawings';
import { drawingId, route } from '@/server/http';
import { stateOf } from '@/server/journal';
import { listVersions } from '@/server/versions';

export const GET = route<{ id: string }>(async (request, params) => {
  const id = drawingId(params);
  const { revision, lines } = cardOf(id);
  if (lines === null) keepProgress(id);
  const etag = `"${stateKey(id, revision)}"`;
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers: { etag } });
  const picture = await cardPicture(id, revision, () => stateOf(id, revision).drawing);
  // Those of earlier revisions are asked for no more, but by versions.
  await dropCardPictures(id, new Set([revision, ...listVersions(id).map((v) => v.revision)]));
  return new Response(picture as BodyInit, {
    headers: { 'content-type': 'image/webp', etag, 'cache-control': 'private, no-cache' },
  });
});

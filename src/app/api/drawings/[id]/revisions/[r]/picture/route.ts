import { cardPicture } from '@/server/cards';
import { drawingId, revisionNumber, route } from '@/server/http';
import { stateOf } from '@/server/journal';

/** How the drawing looked at a revision, small. It never looks otherwise. */
export const GET = route<{ id: string; r: string }>(async (_, params) => {
  const [id, revision] = [drawingId(params), revisionNumber(params)];
  const picture = await cardPicture(id, revision, () => stateOf(id, revision).drawing);
  return new Response(picture as BodyInit, {
    headers: { 'content-type': 'image/webp', 'cache-control': 'private, max-age=31536000, immutable' },
  });
});

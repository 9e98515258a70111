import { cardPicture } from '@/server/cards';
import { drawingId, route, versionId } from '@/server/http';
import { versionOf } from '@/server/versions';

/** A version never changes, nor does its picture. */
export const GET = route<{ id: string; v: string }>(async (_, params) => {
  const id = drawingId(params);
  const { drawing, revision } = versionOf(id, versionId(params));
  return new Response((await cardPicture(id, revision, () => drawing)) as BodyInit, {
    headers: { 'content-type': 'image/webp', 'cache-control': 'private, max-age=31536000, immutable' },
  });
});

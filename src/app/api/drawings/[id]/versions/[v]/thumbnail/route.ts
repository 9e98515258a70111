import { drawingId, route, versionId } from '@/server/http';
import { renderCard } from '@/server/render';
import { versionOf } from '@/server/versions';

/** A version never changes, nor does its picture. */
export const GET = route<{ id: string; v: string }>(async (_, params) => {
  const { drawing } = versionOf(drawingId(params), versionId(params));
  return new Response((await renderCard(drawing)) as BodyInit, {
    headers: { 'content-type': 'image/webp', 'cache-control': 'private, max-age=31536000, immutable' },
  });
});

import { ABOUT_DRAWING } from '@/core/formats/aboutDrawing';
import { cardOf } from '@/server/drawings';
import { drawingId, route } from '@/server/http';
import { changeAt, readableBytes } from '@/server/journal';

/** The drawing packed into bytes; what else there is to say of it stands in a header. */
export const GET = route<{ id: string }>(async (_, params) => {
  const id = drawingId(params);
  const { bytes, ...state } = await readableBytes(id);
  const { title, stage, binnedAt } = cardOf(id);
  const last = changeAt(id, state.revision);
  const about = { id, title, stage, binned: binnedAt !== null, last, ...state };
  return new Response(bytes as Uint8Array<ArrayBuffer>, {
    headers: {
      'content-type': 'application/octet-stream',
      [ABOUT_DRAWING]: encodeURIComponent(JSON.stringify(about)),
    },
  });
});

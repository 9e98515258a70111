import { boundedBytes, route } from '@/server/http';
import { importSvg, MOST_SVG_BYTES } from '@/server/importSvg';
import { withUpload } from '@/server/uploads';

/** An SVG's bytes, packed or not, as a new drawing, called as `?title=` says; what could not be kept is told. */
export const POST = route(async (request) => {
  const title = (new URL(request.url).searchParams.get('title') ?? '').trim().slice(0, 200) || 'Untitled';
  const bytes = await withUpload(request.body, (body) => boundedBytes(request, MOST_SVG_BYTES, body));
  return Response.json(await importSvg(title, bytes, request.signal), { status: 201 });
});

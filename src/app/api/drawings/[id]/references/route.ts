import { nanoid } from 'nanoid';
import { layOver, placedReference, placeReference } from '@/core/edits/references';
import { cardOf } from '@/server/drawings';
import { drawingId, route } from '@/server/http';
import { appendChanges } from '@/server/append';
import { stateOf } from '@/server/journal';
import { takePicture, targetOf } from '@/server/pictures';
import { withUpload } from '@/server/uploads';

/**
 * Takes a picture in and lays it on the page, which is a change. With `?place=0` it is only taken in, and the answer
 * is the reference as it would lie: an open bench makes the change itself, in the order of its own.
 */
export const POST = route<{ id: string }>(async (request, params) => {
  const id = drawingId(params);
  cardOf(id);
  const query = new URL(request.url).searchParams;
  const name = (query.get('name') ?? '').trim().slice(0, 200) || 'picture';
  const length = request.headers.get('content-length');
  const picture = await withUpload(request.body, (body) => takePicture(body, length === null ? null : Number(length)));
  const target = await targetOf(picture);
  const { drawing, revision } = stateOf(id);
  const isPlaced = query.get('place') !== '0';
  const fitted = placedReference(drawing.page, {
    id: nanoid(10),
    name,
    picture: picture.hash,
    pixelWidth: picture.width,
    pixelHeight: picture.height,
    dpi: picture.dpi,
    target,
  });
  const reference = isPlaced ? layOver(drawing, fitted) : fitted;
  if (isPlaced) appendChanges(id, revision, [{ id: nanoid(10), ...placeReference(drawing, reference) }]);
  return Response.json({ reference }, { status: 201 });
});

import { drawingId, route, versionId } from '@/server/http';
import { dropVersion, versionOf } from '@/server/versions';

type Params = { id: string; v: string };

export const GET = route<Params>((_, params) => Response.json(versionOf(drawingId(params), versionId(params))));

export const DELETE = route<Params>((_, params) => {
  const v = versionId(params);
  dropVersion(drawingId(params), v);
  return Response.json({ id: v });
});

import { drawingId, route, versionId } from '@/server/http';
import { restoreVersion } from '@/server/versions';

export const POST = route<{ id: string; v: string }>((_, params) =>
  Response.json(restoreVersion(drawingId(params), versionId(params))),
);

import { drawingId, revisionNumber, route } from '@/server/http';
import { stateOf } from '@/server/journal';

/** The drawing as it was at a revision. */
export const GET = route<{ id: string; r: string }>((_, params) =>
  Response.json(stateOf(drawingId(params), revisionNumber(params))),
);

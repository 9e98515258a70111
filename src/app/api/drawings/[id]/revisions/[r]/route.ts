import { journalHere } from '@/server/elsewhere/journals';
import { drawingId, revisionNumber, route } from '@/server/http';

/** The drawing as it was at a revision. */
export const GET = route<{ id: string; r: string }>(async (_, params) =>
  Response.json(await journalHere.state(drawingId(params), revisionNumber(params))),
);

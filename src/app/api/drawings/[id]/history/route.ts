import { drawingHistory } from '@/server/history';
import { drawingId, route } from '@/server/http';

/** How the drawing came about: how far it was when, and in which order its items were drawn. */
export const GET = route<{ id: string }>(async (_, params) => Response.json(await drawingHistory(drawingId(params))));

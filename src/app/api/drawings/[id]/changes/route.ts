import { z } from 'zod';
import { changesBody, MOST_CHANGE_BYTES } from '@/server/changesBody';
import { cardOf } from '@/server/drawings';
import { journalHere } from '@/server/elsewhere/journals';
import { drawingId, jsonBody, route } from '@/server/http';

const stretch = z.object({
  before: z.coerce.number().int().min(1),
  most: z.coerce.number().int().min(1).max(1_000).default(200),
});

/** The changes before a revision, in their order, at most `most` of them; `from` is the revision of the first. */
export const GET = route<{ id: string }>(async (request, params) => {
  const id = drawingId(params);
  cardOf(id);
  const { before, most } = stretch.parse(Object.fromEntries(new URL(request.url).searchParams));
  return Response.json(await journalHere.history(id, before, most));
});

export const POST = route<{ id: string }>(async (request, params) => {
  const { base, after, changes } = await jsonBody(request, changesBody, MOST_CHANGE_BYTES);
  return Response.json(await journalHere.append({ id: drawingId(params), base, changes, after }));
});

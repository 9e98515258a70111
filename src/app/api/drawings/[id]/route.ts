import { z } from 'zod';
import { binDrawing, cardOf, deleteForGood, stageName, updateCard } from '@/server/drawings';
import { drawingId, jsonBody, route } from '@/server/http';
import { changeAt, readableState } from '@/server/journal';

const card = z.strictObject({ title: z.string().trim().min(1).max(200), stage: stageName }).partial();

export const GET = route<{ id: string }>((_, params) => {
  const id = drawingId(params);
  const { title, stage, binnedAt } = cardOf(id);
  const { drawing, ...state } = readableState(id);
  const last = changeAt(id, state.revision);
  return Response.json({ id, title, stage, binned: binnedAt !== null, last, ...state, drawing });
});

export const PATCH = route<{ id: string }>(async (request, params) =>
  Response.json(updateCard(drawingId(params), await jsonBody(request, card))),
);

/** Into the bin; with `?forever=1`, out of it for good. */
export const DELETE = route<{ id: string }>((request, params) => {
  const id = drawingId(params);
  if (new URL(request.url).searchParams.get('forever') === '1') deleteForGood(id);
  else binDrawing(id, true);
  return Response.json({ id });
});

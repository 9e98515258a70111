import { z } from 'zod';
import { deliverySchema } from '@/core/deliver/delivery';
import { cardOf } from '@/server/drawings';
import { drawingId, jsonBody, route } from '@/server/http';
import { handIn, handInsOf } from '@/server/outbox/handIns';
import { counted } from '@/server/rates';

const MOST_BYTES = 8_000_000;
const body = z.strictObject({
  place: z.string().min(1).max(100),
  wanted: deliverySchema,
  lacking: z.boolean().optional(),
});

export const GET = route<{ id: string }>((_, params) => {
  const id = drawingId(params);
  cardOf(id);
  return Response.json({ handIns: handInsOf(id) });
});

export const POST = route<{ id: string }>(async (request, params) => {
  await counted('file');
  const { place, wanted, lacking } = await jsonBody(request, body, MOST_BYTES);
  return Response.json({ handIn: await handIn(drawingId(params), place, wanted, lacking) }, { status: 202 });
});

import { z } from 'zod';
import { deliverySchema } from '@/core/deliver/delivery';
import { motionSchema } from '@/core/replay/motion';
import { cardOf } from '@/server/drawings';
import { jobsOf, shownJob } from '@/server/files/jobRows';
import { beginFiles, settleOnce } from '@/server/files/makeFiles';
import { drawingId, jsonBody, route } from '@/server/http';
import { counted } from '@/server/rates';

const MOST_BYTES = 8_000_000;
const body = z.strictObject({
  deliveries: z
    .array(z.strictObject({ name: z.string().max(200), wanted: deliverySchema, motion: motionSchema.optional() }))
    .min(1)
    .max(50),
});

export const GET = route<{ id: string }>(async (_, params) => {
  const id = drawingId(params);
  cardOf(id);
  await settleOnce();
  return Response.json({ jobs: jobsOf(id).map(shownJob) });
});

export const POST = route<{ id: string }>(async (request, params) => {
  await counted('file');
  const { deliveries } = await jsonBody(request, body, MOST_BYTES);
  return Response.json({ job: shownJob(await beginFiles(drawingId(params), deliveries)) }, { status: 202 });
});

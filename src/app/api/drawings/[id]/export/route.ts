import { z } from 'zod';
import { deliverySchema, firstDelivery, type Delivery } from '@/core/deliver/delivery';
import { fileName } from '@/core/deliver/files';
import { fileFormats, mimeOf } from '@/core/deliver/fileFormats';
import { cardOf } from '@/server/drawings';
import { filesWanted } from '@/server/files/wantedFiles';
import { drawingId, fileHeaders, jsonBody, route } from '@/server/http';
import { stateOf } from '@/server/journal';
import { counted } from '@/server/rates';
import { exportedDrawing } from '@/server/render';

const MOST_BYTES = 8_000_000;
const flag = z
  .enum(['0', '1'])
  .default('0')
  .transform((v) => v === '1');
const query = z.object({
  format: z.enum(fileFormats),
  scope: z.enum(['page', 'drawing']).default('page'),
  dpi: z.coerce.number().min(1).max(2_400).optional(),
  quality: z.coerce.number().int().min(1).max(100).default(90),
  ground: z.enum(['none', 'page']).default('none'),
  reference: flag,
  shows: deliverySchema.shape.shows.default('all'),
  mirror: flag,
});

/** A file of the page or the drawing. */
export const GET = route<{ id: string }>((request, params) => {
  const id = drawingId(params);
  const { ground, dpi, ...asked } = query.parse(Object.fromEntries(new URL(request.url).searchParams));
  const pageDpi = stateOf(id).drawing.page.dpi;
  return answer(id, { ...firstDelivery, ...asked, ground: ground === 'page', dpi: dpi ?? pageDpi }, request.signal);
});

/** The same with all that can be chosen of it; of several files the first. */
export const POST = route<{ id: string }>(async (request, params) =>
  answer(drawingId(params), await jsonBody(request, deliverySchema, MOST_BYTES), request.signal),
);

async function answer(id: string, wanted: Delivery, signal: AbortSignal): Promise<Response> {
  await counted('file');
  const { title } = cardOf(id);
  const { drawing } = stateOf(id);
  // A page may well be empty; what was chosen of it may not.
  const isPage = wanted.each === 'all' && wanted.scope !== 'chosen';
  const [{ drawing: first, beside }] = isPage ? [{ drawing, beside: undefined }] : filesWanted(drawing, wanted);
  const body = await exportedDrawing(first, wanted, { title, ...(beside && { beside }) }, { signal });
  const headers = fileHeaders(fileName([title], wanted.format), mimeOf[wanted.format]);
  return new Response(body as BodyInit, { headers: { ...headers, 'content-length': String(body.length) } });
}

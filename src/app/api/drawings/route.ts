import { z } from 'zod';
import { idSchema, plainPage, units } from '@/core/drawing/schema';
import { fromUnit } from '@/core/drawing/unit';
import { createDrawing, deedsWithMany, doWithMany, listDrawings } from '@/server/drawings';
import { jsonBody, route } from '@/server/http';

const newDrawing = z.strictObject({
  title: z.string().trim().min(1).max(200),
  page: z.strictObject({
    width: z.number().positive(),
    height: z.number().positive(),
    unit: z.enum(units),
    dpi: z.number().min(1).max(2_400),
  }),
});

/** SQLite takes so many values in one statement. */
const MOST_IDS = 30_000;
const many = z.strictObject({ ids: z.array(idSchema).min(1).max(MOST_IDS), deed: z.enum(deedsWithMany) });

export const GET = route((request) => {
  const binned = new URL(request.url).searchParams.get('binned') === '1';
  return Response.json({ drawings: listDrawings(binned) });
});

export const POST = route(async (request) => {
  const { title, page } = await jsonBody(request, newDrawing);
  const [width, height] = [fromUnit(page.width, page.unit), fromUnit(page.height, page.unit)];
  const size = z.strictObject({ width: z.number().min(1).max(100_000), height: z.number().min(1).max(100_000) });
  size.parse({ width, height });
  return Response.json(createDrawing(title, plainPage({ ...page, width, height, ground: '#fffefb' })), { status: 201 });
});

/** One deed with many drawings. */
export const PATCH = route(async (request) => {
  const { ids, deed } = await jsonBody(request, many);
  return Response.json({ done: doWithMany(ids, deed) });
});

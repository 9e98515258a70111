import { z } from 'zod';
import { beginScan } from '@/server/devices/scans';
import { jsonBody, route } from '@/server/http';

const asked = z.strictObject({
  page: z.string().regex(/^[a-z-]{1,40}$/),
  dpi: z.number().int().min(75).max(600),
  colour: z.boolean(),
});

/** Begins a scan. */
export const POST = route(async (request) =>
  Response.json({ id: await beginScan(await jsonBody(request, asked)) }, { status: 202 }),
);

import { z } from 'zod';
import { cardOf } from '@/server/drawings';
import { drawingId, route } from '@/server/http';
import { stateOf } from '@/server/journal';
import { fileFormats, mimeOf } from '@/core/formats/fileFormats';
import { exportedDrawing } from '@/server/render';

const query = z.object({
  format: z.enum(fileFormats),
  scope: z.enum(['page', 'drawing']).default('page'),
  dpi: z.coerce.number().min(1).max(2_400).optional(),
  quality: z.coerce.number().int().min(1).max(100).default(90),
  ground: z.enum(['none', 'page']).default('none'),
  reference: z
    .enum(['0', '1'])
    .default('0')
    .transform((v) => v === '1'),
});

export const GET = route<{ id: string }>(async (request, params) => {
  const id = drawingId(params);
  const asked = query.parse(Object.fromEntries(new URL(request.url).searchParams));
  const { title } = cardOf(id);
  const { drawing } = stateOf(id);
  const options = { ...asked, title, dpi: asked.dpi ?? drawing.page.dpi };
  const body = await exportedDrawing(drawing, options, { signal: request.signal });
  return new Response(body as BodyInit, {
    headers: {
      'content-type': mimeOf[asked.format],
      'content-length': String(body.length),
      'content-disposition': `attachment; filename="drawing.${asked.format}"; filename*=UTF-8''${encodeURIComponent(title)}.${asked.format}`,
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
      'x-content-type-options': 'nosniff',
    },
  });
});

import { z } from 'zod';
import { cardOf } from '@/server/drawings';
import { drawingId, route } from '@/server/http';
import { rowsOf } from '@/server/journal';

const query = z.object({ from: z.coerce.number().int().min(1).default(1) });

/** The rows of the journal from a revision on, as they are kept, to be saved: also those that cannot be read any more. */
export const GET = route<{ id: string }>((request, params) => {
  const id = drawingId(params);
  const { title } = cardOf(id);
  const { from } = query.parse(Object.fromEntries(new URL(request.url).searchParams));
  const rows = rowsOf(id, from).map(({ revision, changeId, label, body, at, schema }) => ({
    revision,
    change: changeId,
    label,
    body,
    at,
    schema,
  }));
  return Response.json(
    { drawing: id, title, rows },
    {
      headers: {
        'content-disposition': `attachment; filename="journal.json"; filename*=UTF-8''${encodeURIComponent(title)}%20(journal).json`,
      },
    },
  );
});

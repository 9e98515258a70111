import { binDrawing } from '@/server/drawings';
import { drawingId, route } from '@/server/http';

export const POST = route<{ id: string }>((_, params) => {
  const id = drawingId(params);
  binDrawing(id, false);
  return Response.json({ id });
});

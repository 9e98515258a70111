import { duplicateDrawing } from '@/server/drawings';
import { drawingId, route } from '@/server/http';

export const POST = route<{ id: string }>((_, params) =>
  Response.json(duplicateDrawing(drawingId(params)), { status: 201 }),
);

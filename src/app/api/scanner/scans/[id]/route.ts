import { scanOf, stopScan } from '@/server/devices/scans';
import { route } from '@/server/http';

export const GET = route<{ id: string }>((_, { id }) => {
  const { state, progress, why } = scanOf(id);
  return Response.json({ id, state, progress, why });
});

/** Calls the scan off. */
export const DELETE = route<{ id: string }>((_, { id }) => {
  stopScan(id);
  return Response.json({ id });
});

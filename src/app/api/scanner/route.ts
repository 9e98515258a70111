import { route } from '@/server/http';
import { scannerInUse } from '@/server/devices/scans';

/** The scanner that is connected, and the pages that lie in it. */
export const GET = route(async () => {
  const scanner = scannerInUse();
  return Response.json({ name: scanner.name, pages: await scanner.pages() });
});

import { scanOf } from '@/server/devices/scans';
import { route } from '@/server/http';
import { notFound } from '@/server/problem';

/** What was scanned, as PNG. */
export const GET = route<{ id: string }>((_, { id }) => {
  const { picture } = scanOf(id);
  if (!picture) throw notFound('picture yet');
  return new Response(picture as BodyInit, { headers: { 'content-type': 'image/png', 'cache-control': 'no-store' } });
});

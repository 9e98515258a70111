import { isTrusted } from '@/server/door';
import { route } from '@/server/http';
import { healthNow } from '@/server/keeping/health';
import packageJson from '../../../../package.json';

export const dynamic = 'force-dynamic';

/** That it runs, and its version; to this machine, and to whoever has the token, how it is as well. */
export const GET = route((request) => {
  const isOpen = !process.env.YELLOW_QUILL_HOSTS || (!!process.env.YELLOW_QUILL_TOKEN && isTrusted(request.headers));
  return Response.json({ ok: true, version: packageJson.version, ...(isOpen && healthNow()) });
});

import { z } from 'zod';
import { jsonBody, route } from '@/server/http';
import {
  backUpNow,
  beginAnew,
  checkNow,
  deleteAsideNow,
  forgetLoss,
  keepingNow,
  restore,
  salvage,
  sendNow,
} from '@/server/keeping/keeper';

const name = z.string().regex(/^[\da-z-]{1,60}$/);
const deed = z.discriminatedUnion('deed', [
  z.strictObject({ deed: z.enum(['check', 'back up', 'begin anew', 'salvage', 'forget loss', 'send']) }),
  z.strictObject({ deed: z.literal('restore'), backup: name }),
  z.strictObject({ deed: z.literal('delete aside'), aside: name }),
]);

/** What is kept, how large, when it was last looked at and backed up, and what is wrong. */
export const GET = route(() => Response.json(keepingNow()));

/** Does something for safe-keeping; the answer is how it looks afterwards. */
export const POST = route(async (request) => {
  const asked = await jsonBody(request, deed);
  if (asked.deed === 'restore') await restore(asked.backup);
  else if (asked.deed === 'delete aside') deleteAsideNow(asked.aside);
  else
    await {
      check: checkNow,
      'back up': backUpNow,
      'begin anew': beginAnew,
      salvage,
      'forget loss': forgetLoss,
      send: sendNow,
    }[asked.deed]();
  return Response.json(keepingNow());
});

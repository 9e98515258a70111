import { fileId, route } from '@/server/http';
import { dropHandIn, handInOf, sendAgain } from '@/server/outbox/handIns';

export const GET = route<{ file: string }>((_, params) => Response.json({ handIn: handInOf(fileId(params)) }));

/** Sends it again, the very bytes. */
export const POST = route<{ file: string }>(async (_, params) =>
  Response.json({ handIn: await sendAgain(fileId(params)) }, { status: 202 }),
);

/** Calls it off, or forgets it. */
export const DELETE = route<{ file: string }>(async (_, params) => {
  await dropHandIn(fileId(params));
  return new Response(null, { status: 204 });
});

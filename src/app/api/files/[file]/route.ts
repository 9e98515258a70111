import { dropFiles } from '@/server/files/makeFiles';
import { jobOf, shownJob } from '@/server/files/jobRows';
import { fileId, route } from '@/server/http';

export const GET = route<{ file: string }>((_, params) => Response.json({ job: shownJob(jobOf(fileId(params))) }));

export const DELETE = route<{ file: string }>(async (_, params) => {
  await dropFiles(fileId(params));
  return new Response(null, { status: 204 });
});

import { z } from 'zod';
import { route } from '@/server/http';
import { shotOf } from '@/server/simulated/pictures/shots';
import { snailPhoto } from '@/server/simulated/pictures/snailPhoto';

const number = z.coerce.number().int().min(0).max(10_000);
const SIZE = { width: 1600, height: 1200 };

/** The n-th press of the simulated camera's button: a made-up photo, from another side and in another light each time. */
export const GET = route<{ n: string }>(async (_, params) => {
  const bytes = await snailPhoto(shotOf(number.parse(params.n), SIZE));
  return new Response(bytes as BodyInit, { headers: { 'content-type': 'image/jpeg', 'cache-control': 'no-store' } });
});

import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { Problem } from './problem';

/** So many of each a minute are more than any hand asks for: what goes beyond is a page or a script that has run away. */
const A_MINUTE = { upload: 6_000, file: 3_000 } as const;
type Counted = keyof typeof A_MINUTE;

const what: Record<Counted, string> = {
  upload: 'files were brought in',
  file: 'files were asked for',
};

const limiters = new Map<Counted, RateLimiterMemory>();

/** Counts one of a kind. @throws Problem 429 where there were too many within a minute. */
export async function counted(kind: Counted): Promise<void> {
  let limiter = limiters.get(kind);
  if (!limiter) limiters.set(kind, (limiter = new RateLimiterMemory({ points: A_MINUTE[kind], duration: 60 })));
  try {
    await limiter.consume('all');
  } catch (rejected) {
    if (!(rejected instanceof RateLimiterRes)) throw rejected;
    const seconds = Math.ceil(rejected.msBeforeNext / 1000);
    throw new Problem(
      429,
      'too-often',
      `Too many ${what[kind]} within a minute. Nothing was changed; try again in ${seconds} s.`,
      { seconds },
    );
  }
}

/** Nothing was counted yet, as when the program begins. */
export const forgetCounts = (): void => limiters.clear();

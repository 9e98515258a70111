import { Problem } from './problem';
import { counted } from './rates';

/** Files are taken in a few at a time, and none of them may keep the line open without sending. */

const MOST_AT_ONCE = 8;
/** A line that brings nothing for so long is given up, ms. */
const patience = (): number => Number(process.env.YELLOW_QUILL_PATIENCE_MS ?? 20_000);

let underway = 0;

/** Takes in what a request brings. @throws Problem 408 where the line stands still, 429 where too many are sent at once. */
export async function withUpload<T>(
  body: ReadableStream<Uint8Array> | null,
  take: (body: ReadableStream<Uint8Array> | null) => Promise<T>,
): Promise<T> {
  await counted('upload');
  if (underway >= MOST_AT_ONCE)
    throw new Problem(
      429,
      'busy',
      'Too many files are being taken in at once. Nothing was brought in; try again in a moment.',
    );
  underway++;
  try {
    return await take(body && steady(body));
  } finally {
    underway--;
  }
}

/** A body that fails when it stands still. */
function steady(body: ReadableStream<Uint8Array>): ReadableStream<Uint8Array> {
  const reader = body.getReader();
  return new ReadableStream<Uint8Array>({
    async pull(to) {
      let timer: ReturnType<typeof setTimeout>;
      const late = new Promise<never>((_, reject) => {
        timer = setTimeout(() => reject(stalled()), patience());
      });
      try {
        const { done, value } = await Promise.race([reader.read(), late]);
        if (done) to.close();
        else to.enqueue(value);
      } catch (error) {
        void reader.cancel().catch(() => undefined);
        to.error(error);
      } finally {
        clearTimeout(timer!);
      }
    },
    cancel: (why) => reader.cancel(why),
  });
}

const stalled = (): Problem =>
  new Problem(408, 'stalled', 'Nothing more of the file arrived. Nothing was brought in; try again.');

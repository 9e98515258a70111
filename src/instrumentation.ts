/** Brings the database to its newest tables before the first request, and begins to look after it. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === 'nodejs') {
    const { startKeeping, troubleNow } = await import('./server/keeping/keeper');
    // A database that cannot be opened now may be later: whoever asks is told why, and it is tried again.
    const trouble = troubleNow();
    if (trouble) console.error(trouble.message);
    startKeeping();
    // The first card does not wait for a thread to begin.
    setTimeout(() => {
      void import('./server/render').then(({ wakeThreads }) => wakeThreads()).catch(console.error);
    }, 2_000).unref();
    // When all else has begun.
    setTimeout(() => {
      void import('./server/unnamed').then(({ freeUnnamedPictures }) => freeUnnamedPictures()).catch(console.error);
    }, 60_000).unref();
  }
}

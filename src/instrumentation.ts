/** Brings the database to its newest tables before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === 'nodejs') {
    const { database } = await import('./server/database');
    database();
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

/** Brings the database to its newest tables before the first request, and begins to look after what is kept. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === 'nodejs') {
    const { startKeeping } = await import('./server/keeping/keeper');
    const { logError } = await import('./server/log');
    startKeeping();
    // Once it listens; pages that are being changed are built when they are wanted.
    if (process.env.NODE_ENV === 'production')
      setTimeout(() => {
        void import('./server/firstRequests').then(({ askFirst }) => askFirst()).catch(logError);
      }, 300).unref();
    // The first card does not wait for a process to begin.
    setTimeout(() => {
      void import('./server/render').then(({ wakeJobs }) => wakeJobs()).catch(logError);
    }, 2_000).unref();
    // When all else has begun.
    setTimeout(() => {
      void import('./server/unnamed').then(({ freeUnnamedPictures }) => freeUnnamedPictures()).catch(logError);
    }, 60_000).unref();
  }
}

/** Brings the database to its newest tables before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === 'nodejs') {
    const { database } = await import('./server/database');
    database();
  }
}

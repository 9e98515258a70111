/** Asks for something once, for all who want it; again only where it did not come. */
export function askOnce<T>(ask: () => Promise<T>): () => Promise<T> {
  let asked: Promise<T> | null = null;
  return () => {
    asked ??= ask().catch((error: unknown) => {
      asked = null;
      throw error;
    });
    return asked;
  };
}

let asked: Promise<typeof import('./BenchPage')> | null = null;

/**
 * The bench's code, asked for once from wherever it is wanted: imported in several places, it would come in as many pieces as
 * there are ways to it.
 */
export function askBench(): Promise<typeof import('./BenchPage')> {
  asked ??= import('./BenchPage').catch((error: unknown) => {
    asked = null;
    throw error;
  });
  return asked;
}

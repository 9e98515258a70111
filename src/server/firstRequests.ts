/** What a page's first visit asks for: what answers it is loaded when it is asked for first, which takes a second in all. */
const PATHS = ['/', '/drawing/none', '/api/drawings', '/api/drawings/none/packed'];

/**
 * Asks this very server for it, so that nobody else is the first to do so. Nothing is lost where that is refused (for want of a
 * token, which is not told to whatever listens there), or not answered.
 */
export async function askFirst(): Promise<void> {
  for (const path of PATHS)
    await fetch(`http://127.0.0.1:${process.env.PORT}${path}`).then(
      (answer) => answer.arrayBuffer(),
      () => undefined,
    );
}

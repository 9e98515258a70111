/** What a page's first visit asks for: what answers it is loaded when it is asked for first, which takes a second in all. */
const PATHS = ['/', '/drawing/none', '/api/drawings', '/api/drawings/none/packed'];

/** Asks this very server for it, so that nobody else is the first to do so. Where it does not answer, nothing is lost. */
export async function askFirst(): Promise<void> {
  const { PORT, YELLOW_QUILL_TOKEN: token } = process.env;
  const headers: HeadersInit = token ? { authorization: `Bearer ${token}` } : {};
  for (const path of PATHS)
    await fetch(`http://127.0.0.1:${PORT}${path}`, { headers }).then(
      (answer) => answer.arrayBuffer(),
      () => undefined,
    );
}

/** Does something when the page has nothing else to do; gives what calls it off. Not every browser can tell. */
export function whenIdle(run: () => void): () => void {
  if (typeof requestIdleCallback === 'undefined') {
    const timer = setTimeout(run, 300);
    return () => clearTimeout(timer);
  }
  const handle = requestIdleCallback(run, { timeout: 2_000 });
  return () => cancelIdleCallback(handle);
}

/** Does something when the page has nothing else to do; gives what calls it off. Not every browser can tell. */
export function whenIdle(run: () => void): () => void {
  if (typeof requestIdleCallback === 'undefined') {
    const timer = setTimeout(run, 300);
    return () => clearTimeout(timer);
  }
  const handle = requestIdleCallback(run, { timeout: 2_000 });
  return () => cancelIdleCallback(handle);
}

/** Does something when what is being done is done; gives what calls it off. */
export function whenDone(run: () => void): () => void {
  const timer = setTimeout(run, 0);
  return () => clearTimeout(timer);
}

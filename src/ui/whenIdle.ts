/** Does something when the page has nothing else to do; gives what calls it off. Not every browser can tell. */
export function whenIdle(run: () => void): () => void {
  if (typeof requestIdleCallback === 'undefined') {
    const timer = setTimeout(run, 300);
    return () => clearTimeout(timer);
  }
  const handle = requestIdleCallback(run, { timeout: 2_000 });
  return () => cancelIdleCallback(handle);
}

/** The same so long from now, ms, or later. */
export function whenIdleAfter(ms: number, run: () => void): () => void {
  let callOff: () => void;
  const timer = setTimeout(() => (callOff = whenIdle(run)), ms);
  callOff = () => clearTimeout(timer);
  return () => callOff();
}

/** Does something when what is being done is done; gives what calls it off. */
export function whenDone(run: () => void): () => void {
  const timer = setTimeout(run, 0);
  return () => clearTimeout(timer);
}

/** A page that is hidden has no frames, ms. */
const NO_FRAME = 250;

/** Does something when the next frame has been painted, or where there is none; gives what calls it off. */
export function whenSeen(run: () => void): () => void {
  if (typeof requestAnimationFrame === 'undefined') return whenDone(run);
  let timer = setTimeout(seen, NO_FRAME);
  const frame = requestAnimationFrame(() => {
    clearTimeout(timer);
    timer = setTimeout(seen, 0);
  });
  function seen(): void {
    cancelAnimationFrame(frame);
    run();
  }
  return () => {
    clearTimeout(timer);
    cancelAnimationFrame(frame);
  };
}

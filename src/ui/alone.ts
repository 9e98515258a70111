/**
 * Runs what must not take others down with it, one of several who hear of the same. What it throws is reported where such
 * things are seen, and no more.
 */
export function alone(run: () => void): void {
  try {
    run();
  } catch (error) {
    if (typeof reportError === 'function') reportError(error);
    else console.error(error);
  }
}

/** The drawing whose page is at an address; null for other pages, and for what no address of a drawing can be. */
export function drawingAt(pathname: string): string | null {
  const id = /^\/drawing\/([^/]+)$/.exec(pathname)?.[1];
  try {
    return id === undefined ? null : decodeURIComponent(id);
  } catch {
    return null;
  }
}

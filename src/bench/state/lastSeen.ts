/**
 * How a page was seen last in this browser: it is shown while its drawing is on its way. Kept in the browser's cache of
 * answers, which not every browser has everywhere; without it there is nothing to show.
 */

/** Where it was seen, CSS px from the window's corner, and in a window of what size. */
export type SeenPlace = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly window: { readonly width: number; readonly height: number };
};

const STORE = 'yellow-quill-last-seen';
/** So many pages are kept; the one that was seen longest ago goes first. */
const MOST = 24;
const PLACE = 'x-place';

const open = async (): Promise<Cache | null> => (globalThis.caches ? caches.open(STORE) : null);
const addressOf = (id: string): string => `/last-seen/${encodeURIComponent(id)}`;

export async function keepLastSeen(id: string, picture: Blob, place: SeenPlace): Promise<void> {
  const cache = await open();
  if (!cache) return;
  const headers = { 'content-type': picture.type, [PLACE]: JSON.stringify(place) };
  // Taken away first, so that it is the newest of all.
  await cache.delete(addressOf(id));
  await cache.put(addressOf(id), new Response(picture, { headers }));
  const kept = await cache.keys();
  await Promise.all(kept.slice(0, Math.max(0, kept.length - MOST)).map((request) => cache.delete(request)));
}

/** The picture of a drawing's page and its place; null where it was not seen in a window as large as this. */
export async function lastSeen(id: string): Promise<{ picture: Blob; place: SeenPlace } | null> {
  const kept = await (await open())?.match(addressOf(id));
  const place = JSON.parse(kept?.headers.get(PLACE) ?? 'null') as SeenPlace | null;
  if (!kept || place?.window.width !== innerWidth || place.window.height !== innerHeight) return null;
  return { picture: await kept.blob(), place };
}

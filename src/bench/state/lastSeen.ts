/**
 * How a page was seen last in this browser: it is shown at once while its drawing is on its way. Kept where it can be read
 * without waiting, and so only a few, and small.
 */

/** Where it was seen, CSS px from the window's corner, and in a window of what size. */
export type SeenPlace = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly window: { readonly width: number; readonly height: number };
};
type Kept = { readonly at: number; readonly place: SeenPlace; readonly src: string };

const PREFIX = 'yellow-quill:last-seen:';
/** So many pages are kept, each of no more characters than this; the one that was seen longest ago goes first. */
const MOST = 12;
const MOST_CHARACTERS = 150_000;

/**
 * Keeps a picture of a drawing's page, as a data URL; whether it is small enough for that. Where there is no room for it
 * there is nothing to show.
 */
export function keepLastSeen(id: string, src: string, place: SeenPlace): boolean {
  try {
    localStorage.removeItem(PREFIX + id);
    if (src.length > MOST_CHARACTERS) return false;
    const byAge = keys().sort((a, b) => (keptAs(b)?.at ?? 0) - (keptAs(a)?.at ?? 0));
    for (const key of byAge.slice(MOST - 1)) localStorage.removeItem(key);
    localStorage.setItem(PREFIX + id, JSON.stringify({ at: Date.now(), place, src } satisfies Kept));
  } catch {
    // A full or forbidden store.
  }
  return true;
}

/** Lets go of the pictures of some drawings, or of all: others need the room, or the drawings are gone. */
export function forgetLastSeen(ids?: readonly string[]): void {
  try {
    for (const key of ids?.map((id) => PREFIX + id) ?? keys()) localStorage.removeItem(key);
  } catch {
    // A forbidden store has none.
  }
}

/** The picture of a drawing's page and its place; null where it was not seen in a window as large as this. */
export function lastSeen(id: string): Kept | null {
  const kept = keptAs(PREFIX + id);
  const isHere = kept?.place?.window?.width === innerWidth && kept.place.window.height === innerHeight;
  return isHere && kept.src.startsWith('data:image/') ? kept : null;
}

const keys = (): string[] => Object.keys(localStorage).filter((key) => key.startsWith(PREFIX));

function keptAs(key: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

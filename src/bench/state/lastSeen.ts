import { LAST_SEEN } from './localKeys';

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

/** So many pages are kept, each of no more characters than this; the one that was seen longest ago goes first. */
const MOST = 12;
const MOST_CHARACTERS = 150_000;

/**
 * Keeps a picture of a drawing's page, as a data URL; whether it is small enough for that. Where there is no room for it
 * there is nothing to show.
 */
export function keepLastSeen(id: string, src: string, place: SeenPlace): boolean {
  try {
    localStorage.removeItem(LAST_SEEN + id);
    if (src.length > MOST_CHARACTERS) return false;
    const byAge = keys().sort((a, b) => (keptAs(b)?.at ?? 0) - (keptAs(a)?.at ?? 0));
    for (const key of byAge.slice(MOST - 1)) localStorage.removeItem(key);
    localStorage.setItem(LAST_SEEN + id, JSON.stringify({ at: Date.now(), place, src } satisfies Kept));
  } catch {
    // A full or forbidden store.
  }
  return true;
}

/** Lets go of the pictures of some drawings, or of all: others need the room, or the drawings are gone. */
export function forgetLastSeen(ids?: readonly string[]): void {
  try {
    for (const key of ids?.map((id) => LAST_SEEN + id) ?? keys()) localStorage.removeItem(key);
  } catch {
    // A forbidden store has none.
  }
}

/** Puts the picture of a drawing's page, in its place, into what covers the window, where it was seen in one as large as this. */
export function putLastSeen(into: Element, id: string): void {
  try {
    const { src, place } = JSON.parse(localStorage.getItem(LAST_SEEN + id) ?? '{}') as Kept;
    const isHere = place.window.width === innerWidth && place.window.height === innerHeight;
    if (!isHere || !src.startsWith('data:image/')) return;
    const picture = new Image();
    picture.src = src;
    picture.alt = '';
    for (const side of ['left', 'top', 'width', 'height'] as const) picture.style[side] = `${place[side]}px`;
    into.replaceChildren(picture);
  } catch {
    // Nothing is kept, nothing sound, or there is no store.
  }
}

const keys = (): string[] => Object.keys(localStorage).filter((key) => key.startsWith(LAST_SEEN));

function keptAs(key: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

import { putLastSeen } from './lastSeen';
import { LAST_SEEN, preferencesKey, SESSION } from './localKeys';

/**
 * Lays the paper that covers the window where the page will be painted: as it was left here, else whole. `preferences` and `session`
 * are what these are kept under. It stands in the page as text too, to be run before any of the program has come: it uses nothing
 * from outside of itself.
 */
export function placePaper(cover: HTMLElement, preferences: string, session: string): void {
  const kept = <T>(key: string): Partial<T> => {
    try {
      return (JSON.parse(localStorage.getItem(key) ?? 'null') ?? {}) as Partial<T>;
    } catch {
      return {};
    }
  };
  const felt = cover.querySelector<HTMLElement>('.felt');
  const paper = felt?.querySelector<HTMLElement>('.paper');
  if (!felt || !paper) return;
  const { state } = kept<{ state: { folded?: { left: boolean; right: boolean } } }>(preferences);
  if (state?.folded?.left) felt.style.left = '0px';
  if (state?.folded?.right) felt.style.right = '0px';
  const [width, height] = [parseFloat(paper.style.width), parseFloat(paper.style.height)];
  const [across, down] = [felt.clientWidth, felt.clientHeight];
  // As the page is fitted into its window: with a margin all around.
  const whole = Math.min((across - 72) / width, (down - 72) / height);
  const { view } = kept<{ view: { scale: number; x: number; y: number } }>(session);
  const { scale, x, y } = view ?? { scale: whole, x: (across - whole * width) / 2, y: (down - whole * height) / 2 };
  paper.style.transform = `translate(${x}px, ${y}px) scale(${scale})`;
  paper.style.setProperty('--px', `${1 / scale}px`);
}

/** Shows what there is to see of a drawing while it is on its way: its page as it was seen last here, else its paper in its place. */
export function showSight(cover: HTMLElement, id: string): void {
  const seen = cover.querySelector('.seen')!;
  if (!seen.hasChildNodes()) putLastSeen(seen, LAST_SEEN + id);
  placePaper(cover, preferencesKey, SESSION + id);
}

/** The same as a script for the page of any drawing, put in behind what it fills. It is told nothing: it takes the address. */
export const showSightScript = (selector: string): string => `{
const cover = document.querySelector(${JSON.stringify(selector)}), id = location.pathname.split('/').pop();
(${putLastSeen})(cover.querySelector('.seen'), ${JSON.stringify(LAST_SEEN)} + id);
(${placePaper})(cover, ${JSON.stringify(preferencesKey)}, ${JSON.stringify(SESSION)} + id);
}`;

import { keptPreferences } from './keptPreferences';
import { putLastSeen } from './lastSeen';
import { loadSession } from './session';
import { fitting, type Size, type View } from './view';

/** How the page will lie, in a window of what size. */
export type WindowView = { readonly view: View; readonly window: Size };

/**
 * Shows what there is to see of a drawing while it is on its way: its page as it was seen last here, else its paper in its place.
 * Gives where that is; null where nothing is known of it.
 */
export function showSight(cover: HTMLElement, id: string): WindowView | null {
  const seen = cover.querySelector('.seen')!;
  if (!seen.hasChildNodes()) putLastSeen(seen, id);
  const { view, window } = loadSession(id);
  const paper = cover.querySelector<HTMLElement>('.paper');
  if (paper) return placePaper(cover.querySelector<HTMLElement>('.felt')!, paper, view);
  return view && window ? { view, window } : null;
}

/** Lays the paper where the page will be painted: as it was left here, else fitted into its window. */
function placePaper(felt: HTMLElement, paper: HTMLElement, last: View | undefined): WindowView {
  const { folded } = keptPreferences();
  if (folded?.left) felt.style.left = '0px';
  if (folded?.right) felt.style.right = '0px';
  const window: Size = { width: felt.clientWidth, height: felt.clientHeight };
  const [maxX, maxY] = [parseFloat(paper.style.width), parseFloat(paper.style.height)];
  const view = last ?? fitting({ minX: 0, minY: 0, maxX, maxY }, window);
  paper.style.transform = `translate(${view.x}px, ${view.y}px) scale(${view.scale})`;
  paper.style.setProperty('--px', `${1 / view.scale}px`);
  return { view, window };
}

import { startPainters } from './canvas/painters';
import { shownTiles, wantedTiles } from './canvas/wantedTiles';
import { askAhead, isAhead } from './state/ahead';
import { loadSession } from './state/session';

/**
 * While the bench itself is on its way: its painters are started, the drawing is asked for, and as soon as it has come they
 * read it and paint what was seen of it last. Does nothing where there is no browser, or where that is done.
 */
export function openAhead(id: string): void {
  if (typeof window === 'undefined' || isAhead(id)) return;
  const { painters, taken } = startPainters();
  askAhead(id).then(
    ({ bytes }) => {
      if (taken()) return;
      painters.read(bytes);
      const { view, window: size = { width: innerWidth, height: innerHeight } } = loadSession(id);
      if (!view) return;
      const scale = view.scale * devicePixelRatio;
      painters.want({ kind: 'want', scale, tiles: wantedTiles(shownTiles(view, size, scale), 0) });
    },
    () => undefined,
  );
}

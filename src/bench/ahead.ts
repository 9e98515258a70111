import { startPainters } from './canvas/painters';
import { wishOf } from './canvas/wantedTiles';
import { askAhead, isAhead } from './state/ahead';
import { aboutDrawing } from './state/api';
import { loadSession } from './state/session';

/**
 * While the bench itself is on its way: its painters are started, the drawing is asked for, and as soon as it has come they
 * read it and paint what was seen of it last. Does nothing where there is no browser, or where that is done. Where the page has
 * begun with all that by itself (`early`), it goes on.
 */
export function openAhead(id: string): void {
  if (typeof window === 'undefined' || isAhead(id)) return;
  const { painters, taken } = startPainters(id);
  const coming = painters.takeFetched()?.then(({ about, bytes }) => ({ about: aboutDrawing(about), bytes }));
  askAhead(id, coming).then(
    ({ bytes }) => {
      if (taken()) return;
      painters.read(bytes);
      const { view, window: size = { width: innerWidth, height: innerHeight } } = loadSession(id);
      if (view && !painters.isAsked) painters.want(wishOf(view, size, view.scale * devicePixelRatio));
    },
    () => undefined,
  );
}

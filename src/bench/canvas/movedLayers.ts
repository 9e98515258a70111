import type { Point } from '@/core';
import { add } from '@/core/geometry/point';
import type { TileBoard } from './tileBoard';

/** Very many lines that a hand has let go of: until the painters have caught up, what they had painted is shown moved. */
export class MovedLayers {
  private waiting: { by: Point; order: number }[] = [];

  /** Let go of, moved so far, by a change that the painters were told of as `order`. */
  let(by: Point, order: number): void {
    this.waiting.push({ by, order });
  }

  /** How far what was painted as of a message has moved since; `now` is how far the hand holds it off its place. */
  since(order: number, now: Point | null): Point {
    return this.waiting.reduce((sum, w) => (w.order > order ? add(sum, w.by) : sum), now ?? { x: 0, y: 0 });
  }

  /** Whether the tiles show all that was let go of. */
  isShown = (tiles: TileBoard): boolean => this.waiting.every((w) => tiles.shows(w.order));

  /** Lets go of what is shown by now, in the tiles and beside them; whether that was anything. */
  drop(tiles: TileBoard): boolean {
    const left = this.waiting.filter(
      ({ order }) =>
        !tiles.shows(order) || tiles.layers.isBefore('marks', order) || tiles.layers.isBefore('chosen', order),
    );
    const isNews = left.length !== this.waiting.length;
    this.waiting = left;
    return isNews;
  }
}

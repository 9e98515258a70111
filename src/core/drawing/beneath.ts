import type { CubicRun } from '../geometry/along';
import { boxesMeet, middleOfBox } from '../geometry/box';
import { mapCubics } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import { holdsPlace, pageToShares, placedBox, sharesToPage, shownPixels } from './placement';
import { shownCubics } from './rounding';
import { skeletonBox } from './run';
import type { Drawing, Line, Reference } from './schema';

/** The picture that a line is measured against: the uppermost beneath it that is seen and lies under the work. */
export function referenceBeneath(d: Drawing, line: Pick<Line, 'runs'>): Reference | null {
  const box = skeletonBox(line);
  const middle = middleOfBox(box);
  const under = d.references.filter((r) => r.visible && !r.beside).reverse();
  return under.find((r) => holdsPlace(r, middle)) ?? under.find((r) => boxesMeet(placedBox(r), box)) ?? null;
}

/** How a picture lies on the page. */
export type Placement = {
  readonly inPicture: (p: Point) => Point;
  readonly onPage: (p: Point) => Point;
  /** Px of the corrected picture that one of its px stands for: figures are told in these. */
  readonly px: number;
  /** Page units that one of its px is wide. */
  readonly unit: number;
};

/** Between the page and a reference's picture of `size` px. */
export function placementOf(r: Reference, size: { width: number; height: number }): Placement {
  return {
    inPicture: (p: Point): Point => {
      const s = pageToShares(r, p);
      return { x: s.x * size.width, y: s.y * size.height };
    },
    onPage: (p: Point): Point => sharesToPage(r, { x: p.x / size.width, y: p.y / size.height }),
    px: shownPixels(r).width / size.width,
    unit: r.width / size.width,
  };
}

/** The runs of a line in px of a picture; those of a single node are none. */
export function runsInPicture(line: Pick<Line, 'runs'>, inPicture: (p: Point) => Point): CubicRun[] {
  return line.runs.flatMap((run) => {
    const cubics = mapCubics(shownCubics(run), inPicture);
    return cubics.length === 0 ? [] : [{ cubics, closed: run.closed }];
  });
}

import { runFromCubics } from '../drawing/fromCubics';
import { placementOf } from '../drawing/beneath';
import type { Line, Reference, Style } from '../drawing/schema';
import { mapCubics } from '../geometry/cubic';
import { nestedOutlines } from '../raster/nestedOutlines';
import type { PulledRun } from './pullInk';

/**
 * Pulled runs as lines on the page, where the reference that they were pulled from lies. `size` is that of the picture
 * that was worked on. Strokes take their mean width; outlines become filled shapes without a stroke, each with the holes
 * that lie in it. `id` names the lines in turn.
 */
export function linesFromPulled(
  runs: readonly PulledRun[],
  r: Reference,
  size: { width: number; height: number },
  style: Style,
  id: () => string,
): Line[] {
  const { onPage } = placementOf(r, size);
  const isOutline = (run: PulledRun): boolean => run.width === undefined;
  const scale = r.width / size.width;
  const strokes = runs
    .filter((run) => !isOutline(run))
    .map((run): Line => ({
      id: id(),
      style: { ...style, width: run.width! * scale, fill: null },
      runs: [runFromCubics(mapCubics(run.cubics, onPage), run.closed)],
      ...(run.marks && { marks: run.marks.map((m) => ({ at: m.at, left: m.left * scale, right: m.right * scale })) }),
    }));
  return [
    ...strokes,
    ...nestedOutlines(runs.filter(isOutline)).map((shape): Line => ({
      id: id(),
      style: { ...style, width: 0, fill: style.stroke },
      runs: shape.map((run) => runFromCubics(mapCubics(run.cubics, onPage), true)),
    })),
  ];
}

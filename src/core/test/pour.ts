import type { Edit } from '../change/edit';
import type { Drawing } from '../drawing/schema';
import { boundsOf, flatAt, laid, paintFlats, type Pour } from '../edits/flats';
import { withInner } from '../edits/innerOutlines';
import { runsOfArea } from '../edits/placedArea';
import { areaNear } from '../flats/regions';
import type { Point } from '../geometry/point';

/** What a press that pours at a place does: a flat that is there painted, or a new one laid; null outside of all areas. */
export function pour(d: Drawing, at: Point, how: Pour, isInner = false): { edit: Edit; flat: string } | null {
  const there = flatAt(d, at);
  if (there) return { edit: paintFlats(d, [there.id], how.fill), flat: there.id };
  const area = areaNear(boundsOf(d, how.without), at, { gap: how.gap });
  const placed = area && [{ runs: runsOfArea(area), at }];
  return placed && laid(d, isInner ? withInner(d, placed, how.without ?? []) : placed, how, 'Pour');
}

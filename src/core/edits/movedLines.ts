import { dequal } from 'dequal';
import { boundingLines } from '../drawing/items';
import { segmentBetween, skeletonBox } from '../drawing/run';
import type { Drawing, Line, Run } from '../drawing/schema';
import { hullBox } from '../geometry/bounds';
import type { Box } from '../geometry/point';

/** A line before and after, without one where it has come, or gone; and the sheets that it lay and lies on. */
export type Changed = {
  readonly was: Line | undefined;
  readonly is: Line | undefined;
  readonly sheets: readonly string[];
};

/** And where it is another than it was. */
export type Moved = Changed & { readonly boxes: readonly Box[] };

/** Of a line of which more segments have changed it is taken that all have. */
const FEW = 12;

/** The bounding lines that have come, gone or changed in any way. Whether their sheets are seen does not matter. */
export function changedLines(before: Drawing, after: Drawing): Changed[] {
  const list = (d: Drawing) =>
    d.sheets.flatMap((s) => boundingLines(s.items).map((line) => [line.id, { line, sheet: s.id }] as const));
  const old = new Map(list(before));
  const changed: Changed[] = [];
  for (const [id, { line: is, sheet }] of list(after)) {
    const was = old.get(id);
    old.delete(id);
    if (was?.line === is && was.sheet === sheet) continue;
    changed.push({ was: was?.line, is, sheets: was && was.sheet !== sheet ? [was.sheet, sheet] : [sheet] });
  }
  for (const { line, sheet } of old.values()) changed.push({ was: line, is: undefined, sheets: [sheet] });
  return changed;
}

/** Those of them that have come, gone, or changed their shape or their sheet. */
export const movedLines = (before: Drawing, after: Drawing): Moved[] =>
  changedLines(before, after).flatMap((changed) => {
    const { was, is, sheets } = changed;
    const isSame = was && is && sheets.length === 1;
    if (isSame && was.runs === is.runs) return [];
    const boxes = (isSame && boxesOfChanges(was, is)) || [was, is].flatMap((l) => (l ? [skeletonBox(l)] : []));
    return [{ ...changed, boxes }];
  });

/** The boxes of the segments that have changed, before and after; null where they cannot be told, or are many. */
function boxesOfChanges(was: Line, is: Line): Box[] | null {
  if (was.runs.length !== is.runs.length) return null;
  const boxes: Box[] = [];
  for (const [r, { nodes, closed }] of was.runs.entries()) {
    const now = is.runs[r];
    if (now.nodes.length !== nodes.length || now.closed !== closed) return null;
    const differs = nodes.map((n, i) => n !== now.nodes[i] && !dequal(n, now.nodes[i]));
    if (differs.filter(Boolean).length > FEW) return null;
    const segments = closed ? nodes.length : nodes.length - 1;
    for (let i = 0; i < segments; i++)
      if (differs[i] || differs[(i + 1) % nodes.length]) boxes.push(boxOfSegment(was.runs[r], i), boxOfSegment(now, i));
  }
  return boxes;
}

const boxOfSegment = ({ nodes }: Run, i: number): Box =>
  hullBox(segmentBetween(nodes[i], nodes[(i + 1) % nodes.length]));

import { hullBox } from '../geometry/bounds';
import { boxesMeet } from '../geometry/box';
import { splitAt, type Cubic } from '../geometry/cubic';
import { intersectCubics } from '../geometry/intersection';
import { cubicLength, parameterAt } from '../geometry/length';
import { subtract, type Box, type Point } from '../geometry/point';
import { cubicsOf, segmentBetween } from './run';
import type { Line, Node } from './schema';

/** A curve of another line, by its id, with the box of its control points. */
export type Other = Box & { readonly line: string; readonly cubic: Cubic };

const others = new WeakMap<Pick<Line, 'id' | 'runs'>, readonly Other[]>();

/** The curves of a line, with its id. Worked out once for each line. */
export function othersOf(line: Pick<Line, 'id' | 'runs'>): readonly Other[] {
  let list = others.get(line);
  if (!list) {
    list = line.runs.flatMap((r) => cubicsOf(r).map((cubic) => ({ ...hullBox(cubic), line: line.id, cubic })));
    others.set(line, list);
  }
  return list;
}

export type Crossed = { readonly by: number; readonly point: Point; readonly line: string };

/**
 * The crossing with one of some curves that is nearest to the last node along its line, within `reach` of it; `by` is the
 * length that lies beyond, 0 where the end lies on the other line.
 */
export function crossingBefore(nodes: readonly Node[], others: readonly Other[], reach: number): Crossed | null {
  let away = 0;
  for (let i = nodes.length - 1; i > 0 && away < reach; i--) {
    const cubic = tailOf(segmentBetween(nodes[i - 1], nodes[i]), reach - away);
    const box = hullBox(cubic);
    let best: Crossed | null = null;
    for (const other of others) {
      if (!boxesMeet(box, other)) continue;
      for (const { ta, point } of intersectCubics(cubic, other.cubic)) {
        const by = away + (ta < 1 ? cubicLength(splitAt(cubic, ta)[1]) : 0);
        if (by <= reach && (!best || by < best.by)) best = { by, point, line: other.line };
      }
    }
    if (best) return best;
    away += cubicLength(cubic);
  }
  return null;
}

/** The last part of a cubic: as much as is within reach, and a little more. */
function tailOf(c: Cubic, reach: number): Cubic {
  const whole = cubicLength(c, 0.01);
  return whole <= 2 * reach ? c : splitAt(c, parameterAt(c, whole - 1.2 * reach, whole))[1];
}

/** Nodes with so much of their line's end taken away. */
export function trimmed(nodes: readonly Node[], by: number): Node[] {
  let left = by;
  for (let i = nodes.length - 1; i > 0; i--) {
    const cubic = segmentBetween(nodes[i - 1], nodes[i]);
    const length = cubicLength(cubic);
    if (length <= left && i > 1) {
      left -= length;
      continue;
    }
    const t = parameterAt(cubic, Math.max(0, length - left), length);
    const [first] = splitAt(cubic, Math.max(1e-6, t));
    const [before, after] = [nodes[i - 1], nodes[i]];
    const isStraight = !before.out && !after.in;
    const kind = (n: Node): Node['kind'] => (n.kind === 'even' || n.kind === 'flowing' ? 'smooth' : n.kind);
    return [
      ...nodes.slice(0, i - 1),
      isStraight ? before : { ...before, out: subtract(first[1], first[0]), kind: kind(before) },
      { point: first[3], in: isStraight ? null : subtract(first[2], first[3]), out: null, kind: 'corner' },
    ];
  }
  return [...nodes];
}

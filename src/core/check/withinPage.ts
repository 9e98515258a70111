import { cornersOf } from '../geometry/box';
import { cubicsOf, withNodeAt } from '../drawing/run';
import type { Node, Run } from '../drawing/schema';
import { evaluate, type Cubic } from '../geometry/cubic';
import { intersectCubics } from '../geometry/intersection';
import type { Box, Point } from '../geometry/point';

/** The parts of a run that lie within a box: open runs, or the run itself where it lies in it as a whole. */
export function withinPage(run: Run, box: Box): Run[] {
  const cut = withNodesAtRim(run, box);
  const list = cubicsOf(cut);
  const inside = list.map((c) => holdsLoosely(box, evaluate(c, 0.5)));
  if (inside.every(Boolean)) return [run];
  const n = cut.nodes.length;
  // A closed run is begun where it comes in, so that no part is torn in two at its first node.
  const start = cut.closed ? inside.findIndex((is, i) => is && !inside[(i - 1 + n) % n]) : 0;
  if (start < 0) return [];
  const parts: Run[] = [];
  let part: Node[] = [];
  const end = (): void => {
    if (part.length > 1) parts.push({ closed: false, nodes: opened(part) });
    part = [];
  };
  for (let k = 0; k < list.length; k++) {
    const i = (start + k) % list.length;
    if (!inside[i]) {
      end();
      continue;
    }
    if (part.length === 0) part.push(cut.nodes[i]);
    part.push(cut.nodes[(i + 1) % n]);
  }
  end();
  return parts;
}

const opened = (nodes: Node[]): Node[] =>
  nodes.map((node, i) => ({
    ...node,
    in: i === 0 ? null : node.in,
    out: i === nodes.length - 1 ? null : node.out,
    kind: node.kind === 'flowing' ? 'smooth' : node.kind,
  }));

const holdsLoosely = (b: Box, p: Point): boolean =>
  p.x >= b.minX - 1e-6 && p.y >= b.minY - 1e-6 && p.x <= b.maxX + 1e-6 && p.y <= b.maxY + 1e-6;

function withNodesAtRim(run: Run, box: Box): Run {
  const corners = cornersOf(box);
  const sides = corners.map((a, i): Cubic => {
    const b = corners[(i + 1) % 4];
    return [
      a,
      { x: a.x + (b.x - a.x) / 3, y: a.y + (b.y - a.y) / 3 },
      { x: b.x - (b.x - a.x) / 3, y: b.y - (b.y - a.y) / 3 },
      b,
    ];
  });
  const list = cubicsOf(run);
  let result = run;
  for (let s = list.length - 1; s >= 0; s--) {
    const ts = sides
      .flatMap((side) => intersectCubics(list[s], side).map((m) => m.ta))
      .filter((t) => t > 1e-6 && t < 1 - 1e-6)
      .sort((a, b) => b - a)
      .filter((t, i, all) => i === 0 || all[i - 1] - t > 1e-6);
    let last = 1;
    for (const t of ts) {
      result = withNodeAt(result, s, t / last);
      last = t;
    }
  }
  return result;
}

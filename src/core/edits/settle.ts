import { placementOf } from '../drawing/beneath';
import { settle } from '../assist/settle';
import { runFromCubics } from '../drawing/fromCubics';
import { cubicsOf } from '../drawing/run';
import type { Line, Node, Reference, Run } from '../drawing/schema';
import { mapCubics, type Cubic } from '../geometry/cubic';
import { mix, type Point } from '../geometry/point';
import type { Picture } from '../colour/picture';

export type SettleFigures = {
  /** How far the ink may be, px of the corrected picture. */
  readonly reach: number;
  /** How much of the way to it is gone, 0…1. */
  readonly strength: number;
};

/**
 * The runs of a line settled onto a picture's ink: as many nodes of the same kinds. `nodes` (by `run:node`) are the only
 * ones that move, with the handles beside them; all move without it.
 */
export function settledRuns(
  line: Pick<Line, 'runs'>,
  r: Reference,
  image: Picture,
  { reach, strength }: SettleFigures,
  nodes?: ReadonlySet<string>,
): readonly Run[] {
  const { inPicture, onPage, px } = placementOf(r, image);
  const runs = line.runs.map((run, k) => {
    const cubics = cubicsOf(run);
    if (cubics.length === 0 || run.nodes.some((n) => n.radius)) return run;
    const there = { cubics: cubics.map((c) => c.map(inPicture) as Cubic), closed: run.closed };
    const settled = settle(there, image, { reach: reach / px, target: r.target });
    if (settled === there) return run;
    return blended(run, mapCubics(settled.cubics, onPage), strength, (i) => !nodes || nodes.has(`${k}:${i}`));
  });
  return runs.every((run, i) => run === line.runs[i]) ? line.runs : runs;
}

/** A run on its way to other cubics; nodes that do not move keep all they have. */
function blended(run: Run, cubics: Cubic[], strength: number, moves: (node: number) => boolean): Run {
  const aim = runFromCubics(cubics, run.closed);
  const between = (a: Point | null, b: Point | null): Point | null => (a && b ? mix(a, b, strength) : a);
  return {
    ...run,
    nodes: run.nodes.map((n, i): Node => {
      const to = aim.nodes[i];
      if (!moves(i)) return n;
      const next = {
        ...n,
        point: mix(n.point, to.point, strength),
        in: between(n.in, to.in),
        out: between(n.out, to.out),
      };
      // Halfway between two directions handles are no longer in one line, or as long: the kind sees to that.
      return n.kind === 'corner' ? next : asKind(next);
    }),
  };
}

/** Handles in one line again: along the direction between the two; an even node's are as long as their mean. */
function asKind(n: Node): Node {
  if (!n.in || !n.out) return n.kind === 'flowing' ? { ...n, kind: 'smooth' } : n;
  const [a, b] = [Math.hypot(n.in.x, n.in.y), Math.hypot(n.out.x, n.out.y)];
  if (a < 1e-9 || b < 1e-9) return n;
  const direction = { x: n.out.x / b - n.in.x / a, y: n.out.y / b - n.in.y / a };
  const l = Math.hypot(direction.x, direction.y);
  if (l < 1e-9) return n;
  const [p, q] = n.kind === 'even' ? [(a + b) / 2, (a + b) / 2] : [a, b];
  return {
    ...n,
    kind: n.kind === 'flowing' ? 'smooth' : n.kind,
    in: { x: (-direction.x / l) * p, y: (-direction.y / l) * p },
    out: { x: (direction.x / l) * q, y: (direction.y / l) * q },
  };
}

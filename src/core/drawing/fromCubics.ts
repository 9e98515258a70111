import type { Cubic } from '../geometry/cubic';
import { samePoint, subtract, type Point } from '../geometry/point';
import type { Node, Run } from './schema';

/** Handles that differ in direction by less than this share a line (the sine of the angle between them). */
const IN_LINE = 1e-4;

/** A chain of cubics as a run of nodes: smooth where the handles lie in one line, corners elsewhere. */
export function runFromCubics(cubics: readonly Cubic[], closed: boolean): Run {
  const n = cubics.length;
  const nodes = Array.from({ length: closed ? n : n + 1 }, (_, i): Node => {
    const before = i > 0 ? cubics[i - 1] : closed ? cubics[n - 1] : undefined;
    const after = i < n ? cubics[i] : undefined;
    const at = after ? after[0] : before![3];
    const into = before && offset(before[3], before[2]);
    const out = after && offset(after[0], after[1]);
    return { point: at, in: into ?? null, out: out ?? null, kind: isSmooth(into, out) ? 'smooth' : 'corner' };
  });
  return { closed, nodes };
}

const offset = (from: Point, to: Point): Point | null => (samePoint(from, to) ? null : subtract(to, from));

function isSmooth(a: Point | null | undefined, b: Point | null | undefined): boolean {
  if (!a || !b) return false;
  const lengths = Math.hypot(a.x, a.y) * Math.hypot(b.x, b.y);
  return Math.abs(a.x * b.y - a.y * b.x) < IN_LINE * lengths && a.x * b.x + a.y * b.y < 0;
}

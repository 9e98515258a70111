import { cubicsOf } from '../drawing/run';
import { runFromCubics } from '../drawing/fromCubics';
import type { Line, Mark, Run } from '../drawing/schema';
import { shownCubics } from '../drawing/rounding';
import { arcLengthOf, type ArcLength } from '../geometry/arcLength';
import { evaluate } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import { widthProfile } from '../ink/widths';

const measured = new WeakMap<Run, ArcLength>();

function arcOf(run: Run): ArcLength {
  let arc = measured.get(run);
  if (!arc)
    measured.set(run, (arc = arcLengthOf(run.nodes.length > 1 || run.closed ? shownCubics(run) : cubicsOf(run))));
  return arc;
}

/**
 * A line drawn as far as a share of its length, 0…1, its runs one after the other. Null where nothing of it is drawn yet.
 */
export function drawnSoFar(line: Line, share: number): Line | null {
  if (share <= 0) return null;
  if (share >= 1) return line;
  const lengths = line.runs.map((r) => arcOf(r).length);
  let left = share * lengths.reduce((a, b) => a + b, 0);
  const runs: Run[] = [];
  let marks = line.marks;
  for (const [i, run] of line.runs.entries()) {
    if (left <= 0) break;
    if (left >= lengths[i]) runs.push(run);
    else {
      const cubics = arcOf(run).piece(0, left);
      if (cubics.length > 0) runs.push(runFromCubics(cubics, false));
      if (i === 0 && marks) marks = marksUpTo(marks, run.closed, left / lengths[i]);
    }
    left -= lengths[i];
  }
  return runs.length > 0 ? { ...line, runs, ...(marks && { marks }) } : null;
}

/** The widths of the first share of a run, by shares of its own length. */
function marksUpTo(marks: readonly Mark[], closed: boolean, share: number): Mark[] {
  const profile = widthProfile(marks, closed);
  const ats = [0, ...profile.marks.map((m) => m.at).filter((at) => at > 0 && at < share), share];
  return ats.map((at) => {
    const { left, right } = profile.at(at);
    return { at: at / share, left, right };
  });
}

/** Where the pen is on a line of which a share is drawn. */
export function penAt(line: Line, share: number): Point {
  const lengths = line.runs.map((r) => arcOf(r).length);
  let left = Math.min(1, Math.max(0, share)) * lengths.reduce((a, b) => a + b, 0);
  for (const [i, run] of line.runs.entries()) {
    if (left > lengths[i] && i < line.runs.length - 1) {
      left -= lengths[i];
      continue;
    }
    const cubics = shownCubics(run);
    if (cubics.length === 0) return run.nodes[0].point;
    const { segment, t } = arcOf(run).at(Math.min(left, lengths[i]));
    return evaluate(cubics[segment], t);
  }
  return line.runs[0].nodes[0].point;
}

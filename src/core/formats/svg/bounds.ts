import Flatbush from 'flatbush';
import { skeletonBox } from '../../drawing/run';
import type { Line, Run, Style } from '../../drawing/schema';
import { MOST_PLACE } from '../../drawing/values';
import type { Making } from './making';

/** What a line of ours holds. */
const MOST_NODES = 20_000;
const MOST_RUNS = 2_000;
/** So many boxes are looked at to tell which runs go together. */
const MOST_MEETINGS = 2_000_000;

/** Whether all places of a run can be kept. */
export const isInReach = (run: Run): boolean =>
  run.nodes.every(({ point, in: a, out: b }) =>
    [point, a, b].every((p) => p === null || (Math.abs(p.x) <= MOST_PLACE && Math.abs(p.y) <= MOST_PLACE)),
  );

/**
 * One line; or several, where one would hold more than it can: what is only stroked may be cut anywhere, what is filled where its
 * runs lie apart. What can be kept neither way is left out, and said.
 */
export function boundedLines(making: Making, line: { readonly runs: readonly Run[]; readonly style: Style }): Line[] {
  const fits = line.runs.length <= MOST_RUNS && line.runs.every((r) => r.nodes.length <= MOST_NODES);
  const parts = fits ? [line.runs] : line.style.fill === null ? cutAnywhere(line.runs) : cutApart(making, line.runs);
  return parts.flatMap((runs): Line[] => (making.mayMake() ? [{ id: making.id('r'), runs, style: line.style }] : []));
}

function cutAnywhere(runs: readonly Run[]): Run[][] {
  const short = runs.flatMap((run): Run[] => {
    if (run.nodes.length <= MOST_NODES) return [run];
    const nodes = run.closed ? [...run.nodes, run.nodes[0]] : run.nodes;
    const pieces: Run[] = [];
    // Pieces share the node that they are cut at.
    for (let at = 0; at < nodes.length - 1; at += MOST_NODES - 1)
      pieces.push({ closed: false, nodes: nodes.slice(at, at + MOST_NODES) });
    return pieces;
  });
  return Array.from({ length: Math.ceil(short.length / MOST_RUNS) }, (_, i) =>
    short.slice(i * MOST_RUNS, (i + 1) * MOST_RUNS),
  );
}

/** Runs that go together because their boxes meet: what holes are cut in, and what crosses. */
function cutApart(making: Making, all: readonly Run[]): Run[][] {
  const runs = all.filter((r) => r.nodes.length <= MOST_NODES);
  if (runs.length < all.length)
    making.drop('very long filled paths', `An outline of more than ${MOST_NODES} nodes cannot be kept.`);
  if (runs.length <= MOST_RUNS) return runs.length > 0 ? [runs] : [];
  const boxes = runs.map((r) => skeletonBox({ runs: [r] }));
  const index = new Flatbush(runs.length);
  for (const b of boxes) index.add(b.minX, b.minY, b.maxX, b.maxY);
  index.finish();
  let budget = MOST_MEETINGS;
  const group = new Int32Array(runs.length).fill(-1);
  const groups: Run[][] = [];
  for (let i = 0; i < runs.length && budget > 0; i++) {
    if (group[i] >= 0) continue;
    const found = [i];
    group[i] = groups.length;
    for (const k of found) {
      const { minX, minY, maxX, maxY } = boxes[k];
      const near = budget > 0 ? index.search(minX, minY, maxX, maxY) : [];
      budget -= near.length;
      for (const other of near) {
        if (group[other] >= 0) continue;
        group[other] = groups.length;
        found.push(other);
      }
    }
    groups.push(found.sort((a, b) => a - b).map((k) => runs[k]));
  }
  if (budget <= 0)
    making.drop('paths of very many parts', 'Their parts lie too much over each other to be told apart.');
  const sound = budget <= 0 ? [] : groups.filter((g) => g.length <= MOST_RUNS);
  if (sound.length < groups.length)
    making.drop('paths of very many parts', `A filled path of more than ${MOST_RUNS} parts cannot be kept.`);
  // Few lines rather than many: those that lie apart may share one.
  const packed: Run[][] = [];
  for (const g of sound) {
    const last = packed.at(-1);
    if (last && last.length + g.length <= MOST_RUNS) last.push(...g);
    else packed.push([...g]);
  }
  return packed;
}

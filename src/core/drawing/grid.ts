import type { Point } from '../geometry/point';
import type { Item } from './item';
import { mapItem, mapOutlines, mapped } from './items';
import { packedNodesOf } from './packedNodes';
import { factsOf } from './runFacts';
import type { Line, Node, Run } from './schema';

/**
 * Places lie on a grid of 2^-20 page units. It is far finer than anything that can be seen or printed, and coarse enough
 * that places up to ten million page units out, and their sums, are exact as 64-bit floats: what is moved there and back
 * is where it was, to the last bit.
 */
const STEP = 2 ** -20;

/** The nearest value on the grid. */
export const onGrid = (v: number): number => Math.round(v / STEP) * STEP + 0;
export const isOnGrid = (v: number): boolean => v === onGrid(v);

export const pointOnGrid = <P extends Point | null>(p: P): P =>
  p === null || (isOnGrid(p.x) && isOnGrid(p.y)) ? p : ({ x: onGrid(p.x), y: onGrid(p.y) } as P);

function nodeOnGrid(n: Node): Node {
  const [point, into, out] = [pointOnGrid(n.point), pointOnGrid(n.in), pointOnGrid(n.out)];
  return point === n.point && into === n.in && out === n.out ? n : { ...n, point, in: into, out };
}

export const nodesOnGrid = (nodes: readonly Node[]): readonly Node[] => mapped(nodes, nodeOnGrid);

export const runsOnGrid = (runs: readonly Run[]): readonly Run[] =>
  mapped(runs, (r) => {
    if (packedNodesOf(r)?.everyPlace(isOnGrid)) return r;
    const nodes = nodesOnGrid(r.nodes);
    return nodes === r.nodes ? r : { ...r, nodes };
  });

/** A line with its nodes on the grid; the same line where they are. */
export function lineOnGrid<L extends Pick<Line, 'runs'>>(line: L): L {
  if (factsOf(line.runs).onGrid) return line;
  const runs = runsOnGrid(line.runs);
  factsOf(runs).onGrid = true;
  return runs === line.runs ? line : { ...line, runs };
}

/** An item with all its places on the grid; the same item where they are. */
export function itemOnGrid(item: Item): Item {
  if (item.kind !== 'picture' && item.kind !== 'flat') return mapItem(item, lineOnGrid);
  const at = pointOnGrid(item.at);
  const own = at === item.at ? item : { ...item, at };
  return own.kind === 'flat' ? mapOutlines(own, (runs) => lineOnGrid({ runs }).runs) : own;
}

export const itemsOnGrid = (items: readonly Item[]): readonly Item[] => mapped(items, itemOnGrid);

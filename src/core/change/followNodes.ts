import { findLine } from '../drawing/find';
import type { Drawing, Line, Mark, Node, Run } from '../drawing/schema';
import type { NodeRef } from '../drawing/nodeRef';
import { samePoint } from '../geometry/point';
import { touchedItems } from './apply';
import type { Change } from './change';

/**
 * Where nodes stand after a change, so that they stay the ones they were: whatever came before them in their line, whichever
 * way it is walked, and in whichever line they have come to lie. Those that are gone are left out.
 */
export function followNodes(
  before: Drawing,
  after: Drawing,
  change: Pick<Change, 'steps'>,
  places: readonly NodeRef[],
): NodeRef[] {
  const lines = new Map<string, Follower>();
  const others = (): Line[] => [...touchedItems(change)].flatMap((id) => findLine(after, id)?.line ?? []);
  let known: Line[] | null = null;
  return places.flatMap((place): NodeRef[] => {
    const was = findLine(before, place.line)?.line;
    const node = was?.runs[place.run]?.nodes[place.node];
    if (!was || !node) return [];
    const is = findLine(after, place.line)?.line;
    if (is === was || is?.runs === was.runs) return [place];
    let follower = lines.get(place.line);
    if (!follower) lines.set(place.line, (follower = new Follower(was, is)));
    const found = follower.of(place.run, place.node) ?? elsewhere((known ??= others()), node, place.line);
    return found ? [found] : [];
  });
}

/** A node of a line that was joined to another, or cut from it, is where its point is. */
function elsewhere(lines: readonly Line[], node: Node, own: string): NodeRef | null {
  for (const line of lines) {
    if (line.id === own) continue;
    for (const [run, { nodes }] of line.runs.entries()) {
      const at = nodes.findIndex((n) => samePoint(n.point, node.point));
      if (at >= 0) return { line: line.id, run, node: at };
    }
  }
  return null;
}

/** Where the nodes of one line have come to stand in it. */
class Follower {
  private readonly runs = new Map<number, (NodeRef | null)[]>();

  constructor(
    private readonly was: Line,
    private readonly is: Line | undefined,
  ) {}

  of(run: number, node: number): NodeRef | null {
    if (!this.is) return null;
    let places = this.runs.get(run);
    if (!places) this.runs.set(run, (places = this.placesOf(run, this.is)));
    return places[node];
  }

  private placesOf(run: number, is: Line): (NodeRef | null)[] {
    const old = this.was.runs[run];
    const same = this.was.runs.length === is.runs.length ? is.runs[run] : undefined;
    const at = (r: number, node: number): NodeRef => ({ line: is.id, run: r, node });
    if (same && same.nodes.length === old.nodes.length) {
      const order = orderIn(old, same);
      return old.nodes.map((_, i) => at(run, order(i)));
    }
    // Nodes have come or gone: those that did not move are where their points are.
    const taken = new Set<Node>();
    const places = old.nodes.map((n): NodeRef | null => {
      const runs = same ? [run] : is.runs.keys();
      for (const r of runs) {
        const k = is.runs[r].nodes.findIndex((m) => !taken.has(m) && samePoint(m.point, n.point));
        if (k < 0) continue;
        taken.add(is.runs[r].nodes[k]);
        return at(r, k);
      }
      return null;
    });
    if (same) fillGaps(places, same.nodes.length, (k) => at(run, k));
    return places;
  }
}

/**
 * Between two nodes that are found, as many as were there may have moved: they are taken for those. So is what lies before the
 * first and after the last.
 */
function fillGaps(places: (NodeRef | null)[], count: number, at: (k: number) => NodeRef): void {
  let start = 0;
  while (start < places.length) {
    if (places[start]) {
      start++;
      continue;
    }
    let end = start;
    while (end < places.length && !places[end]) end++;
    const from = (places[start - 1]?.node ?? -1) + 1;
    const to = places[end]?.node ?? count;
    if (to - from === end - start) for (let i = start; i < end; i++) places[i] = at(from + i - start);
    start = end;
  }
}

/** Which of as many nodes each has become: the same one, unless the run is walked the other way or begins elsewhere. */
function orderIn(old: Run, next: Run): (i: number) => number {
  const count = old.nodes.length;
  const isSo = (to: (i: number) => number): boolean =>
    old.nodes.every((n, i) => samePoint(n.point, next.nodes[to(i)].point));
  const stays = (i: number): number => i;
  if (isSo(stays)) return stays;
  const reversed = (i: number): number => count - 1 - i;
  if (isSo(reversed)) return reversed;
  if (!old.closed || !next.closed) return stays;
  const first = next.nodes.findIndex((n) => samePoint(n.point, old.nodes[0].point));
  for (const sign of [1, -1]) {
    const turned = (i: number): number => (((first + sign * i) % count) + count) % count;
    if (first >= 0 && isSo(turned)) return turned;
  }
  return stays;
}

/** Where a width mark of a line stands after its marks have become others; null when it is gone. */
export function followMark(before: readonly Mark[], after: readonly Mark[], mark: number): number | null {
  if (before === after || before.length === after.length) return mark < after.length ? mark : null;
  const own = before[mark];
  const found = own ? after.findIndex((m) => m.at === own.at) : -1;
  return found < 0 ? null : found;
}

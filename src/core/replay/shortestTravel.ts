import { distance } from '../geometry/point';
import { endOf, penWays, startOf, type Drawn } from './order';

/** Longer runs of lines are not put right beyond the first way found: each pass looks at every pair. */
const MOST_IMPROVED = 800;
const PASSES = 6;

/**
 * Lines in an order in which the lifted pen goes less far, each part's lines staying together in the places that the part has;
 * directions stay. Nearest neighbour, then or-opt moves (Or 1976). Never a longer way than before.
 */
export function shortestTravel(lines: readonly Drawn[]): Drawn[] {
  const found: Drawn[] = [];
  for (let i = 0; i < lines.length;) {
    let end = i;
    while (end < lines.length && lines[end].sheet === lines[i].sheet) end++;
    const own = lines.slice(i, end);
    found.push(...better(own, improved(nearest(own))));
    i = end;
  }
  return better(lines, found);
}

const better = (a: readonly Drawn[], b: readonly Drawn[]): readonly Drawn[] & Drawn[] => [
  ...(penWays(b).lifted < penWays(a).lifted ? b : a),
];

function nearest(lines: readonly Drawn[]): Drawn[] {
  if (lines.length < 3) return [...lines];
  const left = lines.slice(1);
  const starts = left.map((x) => startOf(x.line));
  const order = [lines[0]];
  while (left.length > 0) {
    const at = endOf(order.at(-1)!.line);
    let best = 0;
    for (let i = 1; i < left.length; i++) if (distance(at, starts[i]) < distance(at, starts[best])) best = i;
    order.push(left[best]);
    left[best] = left.at(-1)!;
    starts[best] = starts.at(-1)!;
    left.pop();
    starts.pop();
  }
  return order;
}

/** Pieces of up to three lines moved to where they cost less, for as long as that helps. */
function improved(order: Drawn[]): Drawn[] {
  const n = order.length;
  if (n < 4 || n > MOST_IMPROVED) return order;
  const hop = (a: Drawn | undefined, b: Drawn | undefined): number =>
    a && b ? distance(endOf(a.line), startOf(b.line)) : 0;
  let list = order;
  for (let pass = 0; pass < PASSES; pass++) {
    let isBetter = false;
    for (let size = 1; size <= 3; size++)
      for (let i = 0; i + size <= n; i++) {
        const [first, last] = [list[i], list[i + size - 1]];
        const gain = hop(list[i - 1], first) + hop(last, list[i + size]) - hop(list[i - 1], list[i + size]);
        let [best, to] = [1e-9, -1];
        for (let j = 0; j <= n; j++) {
          if (j >= i && j <= i + size) continue;
          const cost = hop(list[j - 1], first) + hop(last, list[j]) - hop(list[j - 1], list[j]);
          if (gain - cost > best) [best, to] = [gain - cost, j];
        }
        if (to < 0) continue;
        const piece = list.slice(i, i + size);
        const rest = list.toSpliced(i, size);
        list = rest.toSpliced(to > i ? to - size : to, 0, ...piece);
        isBetter = true;
      }
    if (!isBetter) break;
  }
  return list;
}

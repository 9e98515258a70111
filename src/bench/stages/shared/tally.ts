import type { Drawing, Line, Sheet } from '@/core';
import { nodeCount } from '@/core/drawing/find';
import { linesOf } from '@/core/drawing/items';

type Tally = { readonly lines: number; readonly nodes: number; readonly widths: ReadonlySet<number> };
const tallies = new WeakMap<readonly Line[], Tally>();

/** What a sheet's lines come to; counted once for as long as they are the same. */
function tallyOf(sheet: Sheet): Tally {
  const lines = linesOf(sheet);
  let tally = tallies.get(lines);
  if (!tally) {
    const nodes = lines.reduce((n, l) => n + nodeCount(l), 0);
    tally = { lines: lines.length, nodes, widths: new Set(lines.map((l) => Number(l.style.width.toFixed(2)))) };
    tallies.set(lines, tally);
  }
  return tally;
}

/** What all lines of a drawing come to. */
export function tallyOfDrawing(d: Drawing): Tally {
  const own = d.sheets.map(tallyOf);
  return {
    lines: own.reduce((n, t) => n + t.lines, 0),
    nodes: own.reduce((n, t) => n + t.nodes, 0),
    widths: new Set(own.flatMap((t) => [...t.widths])),
  };
}

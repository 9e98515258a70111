import { linesOf } from '../src/core/drawing/items';
import { regionAt, regions } from '../src/core';
import { cubicsOf } from '../src/core/drawing/run';
import { wanderingDrawing } from '../src/core/test/drawings';
import { madeUpArrangement } from '../src/core/test/arrangements';
import { measureAreas } from '../src/core/test/measureAreas';
import { summary } from './statistics';

const ARRANGEMENTS = 300;
const GAP = 3;

/** Areas beside flooding, on made-up arrangements; and how long the areas of very many lines take, all and one. */
export function colouring(): object {
  const all = { arrangements: ARRANGEMENTS, flooded: 0, narrow: 0, otherSize: 0, unknown: 0 };
  for (let seed = 1; seed <= ARRANGEMENTS; seed++) {
    const f = measureAreas(madeUpArrangement(seed), seed % 3 === 0 ? 0 : GAP);
    all.flooded += f.flooded;
    all.narrow += f.narrow;
    all.otherSize += f.otherSize;
    all.unknown += f.unknown;
  }
  return { besideFlooding: all, areas: [areasOf(2_000), areasOf(10_000)] };
}

function areasOf(lines: number): unknown {
  const d = wanderingDrawing(lines, 8, 3);
  const runs = d.sheets
    .flatMap((s) => linesOf(s))
    .flatMap((l) => l.runs)
    .filter((r) => r.nodes.length > 1)
    .map((r) => ({ cubics: [...cubicsOf(r)], closed: r.closed }));
  const start = performance.now();
  const { length } = regions(runs, { gap: GAP });
  const ms = Math.round(performance.now() - start);
  const one = Array.from({ length: 20 }, (_, i) => {
    const from = performance.now();
    regionAt(runs, { x: 60 + 45 * i, y: 40 + 32 * i }, { gap: GAP });
    return performance.now() - from;
  });
  return { lines, areas: length, allMs: ms, oneMs: summary(one) };
}

import { Picking } from '../src/bench/canvas/picking';
import type { Drawing } from '../src/core';
import { seeded } from '../src/core/seeded';
import { summary, type Summary } from './statistics';

/** How long it takes to find the line nearest to the pointer, in ms; and to get ready for it. */
export function nearestLine(drawing: Drawing): { prepare: number; find: Summary } {
  const picking = new Picking();
  const random = seeded(5);
  const before = performance.now();
  picking.nearest(drawing, { x: 0, y: 0 }, 1);
  const prepare = Math.round(performance.now() - before);
  const times: number[] = [];
  for (let i = 0; i < 3_000; i++) {
    const p = { x: random() * drawing.page.width, y: random() * drawing.page.height };
    const start = performance.now();
    picking.nearest(drawing, p, 12);
    times.push(performance.now() - start);
  }
  return { prepare, find: summary(times.slice(500)) };
}

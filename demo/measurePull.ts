import type { Cubic, PulledRun } from '../src/core';

import { distanceToCurves, walk } from '../src/core/test/strokes';
import type { TrueLine } from '../src/server/simulated/curves/path';

/** How near pulled lines come to the curves that a picture was drawn from. Shares are of length, 0…1. */
export type PullFigures = {
  covered: number;
  withoutInk: number;
  segments: number;
  trueSegments: number;
  runs: number;
  trueRuns: number;
};

/** A pulled line this near to a true one covers it, px. */
const NEAR = 1.5;

/** Compares pulled lines with the true ones, which were drawn at `scale` px a unit. */
export function measurePull(runs: readonly PulledRun[], lines: readonly TrueLine[], scale: number): PullFigures {
  const truth = lines.map((l) => ({
    width: l.width * scale,
    cubics: l.cubics.map((c) => c.map((p) => ({ x: p.x * scale, y: p.y * scale })) as Cubic),
  }));
  const pulled = runs.flatMap((r) => r.cubics);
  let [length, covered, drawn, without] = [0, 0, 0, 0];
  for (const { cubics } of truth) {
    for (const p of walk(cubics, 2)) {
      length++;
      if (distanceToCurves(pulled, p) <= NEAR) covered++;
    }
  }
  for (const run of runs) {
    for (const p of walk(run.cubics, 2)) {
      drawn++;
      if (truth.every((t) => distanceToCurves(t.cubics, p) > t.width / 2 + 1)) without++;
    }
  }
  return {
    covered: covered / length,
    withoutInk: without / drawn,
    segments: pulled.length,
    trueSegments: truth.reduce((n, t) => n + t.cubics.length, 0),
    runs: runs.length,
    trueRuns: truth.length,
  };
}

import { pullInk, type PulledRun } from '../src/core';
import { distanceToCurves } from '../src/core/test/strokes';
import { measurePull, type PullFigures } from './measurePull';
import { pearSketch, snailSketch } from './sketches';

/** No end lies near to another line without meeting it. */
const meets = (runs: readonly PulledRun[]): void => {
  const ends = runs.flatMap((r, i) =>
    r.closed ? [] : [r.cubics[0][0], r.cubics.at(-1)![3]].map((at) => ({ at, others: runs.filter((_, k) => k !== i) })),
  );
  const gaps = ends.map(({ at, others }) =>
    distanceToCurves(
      others.flatMap((o) => o.cubics),
      at,
    ),
  );
  expect(gaps.filter((d) => d > 0.05 && d < 5)).toEqual([]);
  expect(gaps.filter((d) => d <= 0.05).length).toBeGreaterThan(15);
};

const holds = (f: PullFigures): void => {
  expect(f.covered).toBeGreaterThan(0.97);
  expect(f.withoutInk).toBeLessThan(0.03);
  expect(f.segments).toBeLessThanOrEqual(1.5 * f.trueSegments);
  // One line a stroke: nothing is broken up, and little runs together.
  expect(f.runs).toBeLessThan(1.1 * f.trueRuns);
  expect(f.runs).toBeGreaterThan(0.75 * f.trueRuns);
};

test.each([1748])(
  'the pear scan, %i px wide: its pencil strokes are pulled along their middles',
  async (width) => {
    const { image, lines, scale } = await pearSketch(width);
    const runs = pullInk(image, { tolerance: 1, mode: 'centre' });
    holds(measurePull(runs, lines, scale));
    meets(runs);
    const outline = runs.filter((r) => r.closed);
    expect(outline).toHaveLength(1);
    expect(Math.abs(outline[0].width! - 10 * scale)).toBeLessThan(2 * scale);
  },
  60_000,
);

test('the snail photo, straightened by its corners: uneven light and the page’s edge do not matter', async () => {
  const { image, lines, scale } = await snailSketch();
  const runs = pullInk(image, { tolerance: 1, mode: 'centre', widths: true });
  holds(measurePull(runs, lines, scale));
  meets(runs);
  // Widths all along each stroke, about its mean width.
  for (const { marks, width } of runs) {
    const wide = marks!.map((m) => m.left + m.right);
    expect(wide.reduce((a, b) => a + b) / wide.length).toBeGreaterThan(0.5 * width!);
    expect(Math.max(...wide)).toBeLessThan(1.6 * width!);
  }
}, 60_000);

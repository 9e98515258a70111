import { pullInk } from '../src/core';
import { measurePull, type PullFigures } from './measurePull';
import { pearSketch, snailSketch } from './sketches';

const holds = (f: PullFigures): void => {
  expect(f.covered).toBeGreaterThan(0.97);
  expect(f.withoutInk).toBeLessThan(0.03);
  expect(f.segments).toBeLessThanOrEqual(1.5 * f.trueSegments);
  // One line a stroke: nothing is broken up, and little runs together.
  expect(f.runs).toBeLessThan(1.1 * f.trueRuns);
  expect(f.runs).toBeGreaterThan(0.75 * f.trueRuns);
};

test.each([1748, 1000])(
  'the pear scan, %i px wide: its pencil strokes are pulled along their middles',
  async (width) => {
    const { image, lines, scale } = await pearSketch(width);
    const runs = pullInk(image, { tolerance: 1, mode: 'centre' });
    holds(measurePull(runs, lines, scale));
    const outline = runs.filter((r) => r.closed);
    expect(outline).toHaveLength(1);
    expect(Math.abs(outline[0].width! - 10 * scale)).toBeLessThan(2 * scale);
  },
  60_000,
);

test('the snail photo, straightened by its corners: uneven light and the page’s edge do not matter', async () => {
  const { image, lines, scale } = await snailSketch();
  holds(measurePull(pullInk(image, { tolerance: 1, mode: 'centre' }), lines, scale));
}, 60_000);

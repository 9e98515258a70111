import { pullInk, rectify } from '../src/core';
import { pearLines, pearPage } from '../src/server/simulated/curves/pear';
import { snailLines, snailPage } from '../src/server/simulated/curves/snail';
import { greyPicture } from './greyPicture';
import { measurePull, type PullFigures } from './measurePull';
import { pearScan } from '../src/server/simulated/pictures/pearScan';
import { snailCorners, snailPhoto } from '../src/server/simulated/pictures/snailPhoto';

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
    const image = await greyPicture(await pearScan({ width, height: Math.round((width * 2480) / 1748) }));
    const runs = pullInk(image, { tolerance: 1, mode: 'centre' });
    const scale = width / pearPage.width;
    holds(measurePull(runs, pearLines, scale));
    const outline = runs.filter((r) => r.closed);
    expect(outline).toHaveLength(1);
    expect(Math.abs(outline[0].width! - 10 * scale)).toBeLessThan(2 * scale);
  },
  60_000,
);

test('the snail photo, straightened by its corners: uneven light and the page’s edge do not matter', async () => {
  const photo = await greyPicture(await snailPhoto());
  const scale = 1.5;
  const page = rectify(photo, [...snailCorners], { width: scale * snailPage.width, height: scale * snailPage.height });
  holds(measurePull(pullInk(page, { tolerance: 1, mode: 'centre' }), snailLines, scale));
}, 60_000);

import { rectify } from '../src/core';
import { pearLines, pearPage } from '../src/server/simulated/curves/pear';
import { snailLines, snailPage } from '../src/server/simulated/curves/snail';
import { pearScan } from '../src/server/simulated/pictures/pearScan';
import { snailCorners, snailPhoto } from '../src/server/simulated/pictures/snailPhoto';
import { greyPicture } from './greyPicture';
import { measureFollow, type FollowFigures } from './measureFollow';

const holds = (f: FollowFigures): void => {
  expect(f.near).toBeGreaterThan(0.95);
  expect(f.nearAtCrossings).toBeGreaterThan(0.91);
  // Ordinary nodes, and few of them: a press lays one or two.
  expect(f.segments).toBeLessThan(2 * f.presses);
};

test('the pen that follows the pear scan stays on its true curves, a press each 150 to 300 px', async () => {
  holds(measureFollow(await greyPicture(await pearScan()), pearLines, 1748 / pearPage.width, 2));
}, 120_000);

test('and so on the snail photo, straightened by its corners', async () => {
  const [scale, photo] = [1.5, await greyPicture(await snailPhoto())];
  const page = rectify(photo, [...snailCorners], { width: scale * snailPage.width, height: scale * snailPage.height });
  holds(measureFollow(page, snailLines, scale, 2));
}, 120_000);

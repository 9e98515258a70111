import { measureFollow, type FollowFigures } from './measureFollow';
import { pearSketch, snailSketch, type Sketch } from './sketches';

const holds = (f: FollowFigures): void => {
  expect(f.near).toBeGreaterThan(0.95);
  expect(f.nearAtCrossings).toBeGreaterThan(0.91);
  // Ordinary nodes, and few of them: a press lays one or two.
  expect(f.segments).toBeLessThan(2 * f.presses);
};

test.each<[string, () => Promise<Sketch>]>([
  ['the pear scan', pearSketch],
  ['the snail photo, straightened by its corners,', snailSketch],
])(
  'the pen that follows %s stays on its true curves, a press each 150 to 300 px',
  async (_, make) => {
    const { image, lines, scale } = await make();
    holds(measureFollow(image, lines, scale, 2, 3));
  },
  120_000,
);

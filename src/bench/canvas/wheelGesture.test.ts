import { WheelGesture } from './wheelGesture';

const turn = (deltaY: number, timeStamp: number, more = {}) => ({
  deltaMode: 0,
  deltaX: 0,
  deltaY,
  ctrlKey: false,
  metaKey: false,
  timeStamp,
  ...more,
});

test('a swipe that begins slowly pans to its end, however fast and upright it becomes', () => {
  const wheel = new WheelGesture();
  const swipe = [2, 9, 31, 74, 140, 180, 96, 40, 8];
  expect(swipe.map((dy, i) => wheel.turn(turn(dy, 1_000 + 16 * i)))).toEqual(swipe.map(() => 'pan'));
});

test('a wheel zooms by steps, also when it is turned fast; after a pause it is decided anew', () => {
  const wheel = new WheelGesture();
  expect([0, 40, 80].map((t) => wheel.turn(turn(100, t)))).toEqual(Array(3).fill('zoom by steps'));
  expect(wheel.turn(turn(6, 120))).toBe('zoom by steps');
  expect(wheel.turn(turn(6, 600))).toBe('pan');
  expect(wheel.turn(turn(3, 1_200, { deltaMode: 1 }))).toBe('zoom by steps');
});

test('a pinch, which comes with Ctrl, zooms; level swipes pan', () => {
  const wheel = new WheelGesture();
  expect(wheel.turn(turn(-3, 0, { ctrlKey: true }))).toBe('zoom');
  expect(wheel.turn(turn(100, 500, { deltaX: 80 }))).toBe('pan');
});

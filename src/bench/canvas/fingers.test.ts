import { firstPreferences, prefer, preferences } from '../state/preferences';
import { Fingers } from './fingers';

const touch = (timeStamp: number, size = 20) => ({ pointerType: 'touch', width: size, height: size, timeStamp });
const pen = (timeStamp: number) => ({ pointerType: 'pen', width: 1, height: 1, timeStamp });

beforeEach(() => prefer(firstPreferences));

test('fingers draw until a pen is seen; then they pan, unless they are to draw as well', () => {
  const fingers = new Fingers();
  expect(fingers.of(touch(0))).toBe('draw');
  fingers.hear(pen(1_000));
  expect(preferences.getState().penSeen).toBe(true);
  expect(fingers.of(pen(1_000))).toBe('draw');
  expect(fingers.of(touch(2_000))).toBe('pan');
  // It is known on the next visit too.
  expect(new Fingers().of(touch(0))).toBe('pan');
  prefer({ fingerDraws: true });
  expect(fingers.of(touch(2_000))).toBe('draw');
});

test('a palm does nothing: what comes with the pen, or is broad', () => {
  const fingers = new Fingers();
  fingers.hear(pen(1_000));
  expect(fingers.of(touch(1_300))).toBe('nothing');
  expect(fingers.of(touch(3_000, 90))).toBe('nothing');
  expect(fingers.of(touch(3_000))).toBe('pan');
});

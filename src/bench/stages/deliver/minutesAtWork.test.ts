import { minutesAtWork } from './minutesAtWork';

test('pauses are none of the work', () => {
  const minute = 60_000;
  const at = [0, 1, 3, 3 + 60, 64].map((m) => ({ at: m * minute }));
  expect(minutesAtWork(at)).toEqual([0, 1, 3, 3, 4]);
  // A clock that was set back counts as nothing.
  expect(minutesAtWork([{ at: 5 * minute }, { at: 0 }, { at: minute }])).toEqual([0, 0, 1]);
});

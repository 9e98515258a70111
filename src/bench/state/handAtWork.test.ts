import { HandAtWork } from './handAtWork';

const hand = (target: EventTarget, type: string, buttons = 0): void => {
  target.dispatchEvent(Object.assign(new Event(type), { buttons }));
};
/** Whether something has come to be by now, with all that was waiting for nothing else done. */
async function isDone(work: Promise<void>): Promise<boolean> {
  let done = false;
  void work.then(() => (done = true));
  for (let i = 0; i < 5; i++) await Promise.resolve();
  return done;
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('what waits goes on as soon as the hand lets go, not while it presses', async () => {
  const target = new EventTarget();
  const work = new HandAtWork(target as Window);
  expect(await isDone(work.rest())).toBe(true);
  hand(target, 'pointerdown', 1);
  const waiting = work.rest();
  await jest.advanceTimersByTimeAsync(5_000);
  expect(await isDone(waiting)).toBe(false);
  hand(target, 'pointermove', 1);
  expect(await isDone(waiting)).toBe(false);
  hand(target, 'pointerup');
  expect(await isDone(waiting)).toBe(true);
});

test('a release that was not heard of is known by the next move without a button', async () => {
  const target = new EventTarget();
  const work = new HandAtWork(target as Window);
  hand(target, 'pointerdown', 1);
  const waiting = work.rest();
  hand(target, 'pointermove', 0);
  expect(await isDone(waiting)).toBe(true);
});

test('a wheel is at work until a little after its last turn; at the end nothing is left waiting', async () => {
  const target = new EventTarget();
  const work = new HandAtWork(target as Window);
  hand(target, 'wheel');
  const waiting = work.rest();
  await jest.advanceTimersByTimeAsync(150);
  hand(target, 'wheel');
  await jest.advanceTimersByTimeAsync(150);
  expect(await isDone(waiting)).toBe(false);
  await jest.advanceTimersByTimeAsync(400);
  expect(await isDone(waiting)).toBe(true);
  hand(target, 'pointerdown', 1);
  const last = work.rest();
  work.dispose();
  expect(await isDone(last)).toBe(true);
  hand(target, 'pointerdown', 1);
  expect(await isDone(work.rest())).toBe(true);
});

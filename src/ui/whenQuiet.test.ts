import { whenQuiet } from './whenQuiet';

let page: EventTarget;
let done: number;
const run = (): void => void done++;

beforeEach(() => {
  done = 0;
  page = new EventTarget();
  (globalThis as { window?: unknown }).window = page;
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

const begin = () => whenQuiet({ after: 4_000, quiet: 1_000 }, run);
/** Without a browser's own word for it, the page counts as idle after a moment. */
const IDLE = 400;

test('where nobody does anything it is done once the time has come, and once only', () => {
  begin();
  jest.advanceTimersByTime(3_900);
  expect(done).toBe(0);
  jest.advanceTimersByTime(100 + IDLE);
  expect(done).toBe(1);
  page.dispatchEvent(new Event('keydown'));
  jest.advanceTimersByTime(60_000);
  expect(done).toBe(1);
});

test('it waits for a hand that is at work, however long', () => {
  begin();
  for (let i = 0; i < 40; i++) {
    jest.advanceTimersByTime(700);
    page.dispatchEvent(new Event(['pointerdown', 'pointermove', 'wheel', 'keydown'][i % 4]));
  }
  expect(done).toBe(0);
  jest.advanceTimersByTime(900);
  expect(done).toBe(0);
  jest.advanceTimersByTime(100 + IDLE);
  expect(done).toBe(1);
});

test('it can be called off at any time', () => {
  for (const at of [0, 3_999, 4_001]) {
    const callOff = begin();
    jest.advanceTimersByTime(at);
    callOff();
    jest.advanceTimersByTime(60_000);
  }
  const callOff = begin();
  jest.advanceTimersByTime(3_500);
  page.dispatchEvent(new Event('wheel'));
  jest.advanceTimersByTime(700);
  callOff();
  jest.advanceTimersByTime(60_000);
  expect(done).toBe(0);
});

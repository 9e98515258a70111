import { HeldKeys } from './heldKeys';

const event = (some: Partial<Record<'shiftKey' | 'altKey' | 'ctrlKey' | 'metaKey', boolean>> = {}) => ({
  shiftKey: false,
  altKey: false,
  ctrlKey: false,
  metaKey: false,
  ...some,
});

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('a key that goes during a gesture counts for a moment, then that it is gone is told', () => {
  let now = 0;
  const held = new HeldKeys(
    () => ({}),
    () => now,
  );
  const later = jest.fn();
  expect(held.of(event({ altKey: true })).alt).toBe(true);
  held.letGo('alt', later);
  expect(held.of(event()).alt).toBe(true);
  now = 150;
  expect([held.of(event()).alt, later.mock.calls.length]).toEqual([true, 0]);
  now = 250;
  jest.advanceTimersByTime(250);
  expect([held.of().alt, later.mock.calls.length]).toEqual([false, 1]);
});

test('with the next gesture nothing that went before counts', () => {
  const held = new HeldKeys(
    () => ({}),
    () => 0,
  );
  held.letGo('shift', () => undefined);
  held.letGo('mod', () => undefined);
  held.settle();
  expect(held.of(event())).toEqual({ shift: false, alt: false, mod: false, space: false, more: false });
});

test('what a finger holds counts as the key does', () => {
  let finger = {};
  const held = new HeldKeys(() => finger);
  finger = { more: true };
  expect(held.of(event())).toEqual({ shift: false, alt: false, mod: false, space: false, more: true });
  finger = { shift: true };
  expect(held.of(event({ metaKey: true }))).toEqual({ shift: true, alt: false, mod: true, space: false, more: true });
});

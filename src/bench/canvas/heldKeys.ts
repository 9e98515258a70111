import type { HandEvent } from '../tools/tool';

/** Keys that go this shortly before the button still count for what it does: no hand lets go of both at once. */
const GRACE_MS = 200;

export type Held = Pick<HandEvent, 'shift' | 'alt' | 'mod' | 'space' | 'more'>;
type Key = Exclude<keyof Held, 'more'>;
type Modified = { shiftKey: boolean; altKey: boolean; ctrlKey: boolean; metaKey: boolean };

const keyOf: Record<string, Key> = { Shift: 'shift', Alt: 'alt', Control: 'mod', Meta: 'mod', ' ': 'space' };

/** The key that a press is of, where it is one that is held. */
export const heldKey = (key: string): Key | undefined => keyOf[key];

/** What is held while the hand works: by the keyboard, a moment after it as well, or by a finger of the other hand. */
export class HeldKeys {
  private readonly until: Record<Key, number> = { shift: -Infinity, alt: -Infinity, mod: -Infinity, space: -Infinity };
  private readonly timers = new Set<ReturnType<typeof setTimeout>>();
  space = false;
  private seen: Modified = { shiftKey: false, altKey: false, ctrlKey: false, metaKey: false };

  constructor(
    /** What is held on the page itself. */
    private readonly byFinger: () => Partial<Held>,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /** As an event tells, or as the last one told. */
  of(e: Modified = this.seen): Held {
    this.seen = e;
    const finger = this.byFinger();
    const counts = (key: Key, isDown: boolean): boolean => isDown || !!finger[key] || this.now() < this.until[key];
    return {
      shift: counts('shift', e.shiftKey),
      alt: counts('alt', e.altKey),
      mod: counts('mod', e.ctrlKey || e.metaKey),
      space: this.space,
      more: counts('shift', e.shiftKey) || !!finger.more,
    };
  }

  /** A key was let go of; `later` runs when that counts. Space counts at once. */
  letGo(key: Key, later: () => void): void {
    if (key === 'space') return;
    this.until[key] = this.now() + GRACE_MS;
    const timer = setTimeout(() => {
      this.timers.delete(timer);
      later();
    }, GRACE_MS);
    this.timers.add(timer);
  }

  /** A key is down again, or a gesture is over: what went before counts no more. */
  settle(key?: Key): void {
    for (const k of key ? [key] : (Object.keys(this.until) as Key[])) this.until[k] = -Infinity;
  }

  dispose(): void {
    this.timers.forEach(clearTimeout);
  }
}

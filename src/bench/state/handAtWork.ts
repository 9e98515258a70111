/** How long after the last turn of a wheel a hand is still taken to be at work, ms. */
const WHEEL_MS = 250;

/** Whether a hand presses or turns a wheel just now: what can wait waits, so that the hand has the machine to itself. */
export class HandAtWork {
  private isDown = false;
  private turnedAt = -Infinity;
  private readonly waiting: (() => void)[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly listening = new AbortController();

  constructor(target: Pick<Window, 'addEventListener'>) {
    const { signal } = this.listening;
    const on = <E>(type: string, hear: (e: E) => void): void =>
      target.addEventListener(type, hear as EventListener, { capture: true, passive: true, signal });
    on('pointerdown', () => (this.isDown = true));
    // A release outside the window is not heard of.
    on<PointerEvent>('pointermove', (e) => e.buttons === 0 && this.isDown && this.letGo());
    on('pointerup', () => this.letGo());
    on('pointercancel', () => this.letGo());
    on('wheel', () => (this.turnedAt = performance.now()));
  }

  dispose(): void {
    this.listening.abort();
    clearTimeout(this.timer);
    this.wake();
  }

  private letGo(): void {
    this.isDown = false;
    this.turnedAt = -Infinity;
    this.wake();
  }

  private wake(): void {
    for (const go of this.waiting.splice(0)) go();
  }

  private get isBusy(): boolean {
    return this.isDown || performance.now() - this.turnedAt < WHEEL_MS;
  }

  /** Waits until the hand rests. */
  async rest(): Promise<void> {
    while (this.isBusy && !this.listening.signal.aborted) {
      await new Promise<void>((go) => {
        this.waiting.push(go);
        clearTimeout(this.timer);
        this.timer = setTimeout(() => this.wake(), WHEEL_MS);
      });
    }
  }
}

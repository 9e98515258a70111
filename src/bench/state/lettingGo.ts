/** What a portion may take, ms: with what else a frame has to do it stays a frame. */
const PORTION_MS = 6;

/** What a person may begin next: it finds the drawing as it was left. */
const NEXT = ['pointerdown', 'keydown', 'click', 'copy', 'cut', 'paste', 'drop', 'beforeunload', 'pagehide'] as const;

/**
 * Something long that a hand has let go of, made a portion at a time while it is seen as made already, so that the next
 * frames are not late. Whatever is to be done next waits for it: `finish`, which comes by itself with the next deed of a hand.
 */
export class LettingGo {
  private rest: { making: Iterator<undefined, unknown>; turn: MessageChannel } | null = null;

  begin(making: Iterator<undefined, unknown>): void {
    this.finish();
    const turn = new MessageChannel();
    this.rest = { making, turn };
    turn.port1.onmessage = () => this.portion(performance.now() + PORTION_MS);
    turn.port2.postMessage(null);
    for (const type of NEXT) globalThis.addEventListener?.(type, this.finish, { capture: true });
  }

  /** Makes what is left of it at once. @throws what making it throws */
  readonly finish = (): void => this.portion(Infinity);

  private portion(until: number): void {
    const { rest } = this;
    // What making it brings about may ask for it to be finished: it is being made already.
    this.rest = null;
    if (!rest) return;
    let goesOn = false;
    try {
      while (!goesOn && !rest.making.next().done) goesOn = performance.now() >= until;
    } finally {
      if (goesOn) this.rest = rest;
      else this.end(rest.turn);
    }
    if (goesOn) rest.turn.port2.postMessage(null);
  }

  private end(turn: MessageChannel): void {
    turn.port1.close();
    for (const type of NEXT) globalThis.removeEventListener?.(type, this.finish, { capture: true });
  }
}

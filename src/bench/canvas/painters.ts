import { FIRST_ORDER, type FromPainter, type PackedDrawing, type ToPainter } from '@/workers/tileProtocol';
import { whenIdle, whenSeen } from '@/ui/whenIdle';
import { takeEarly, type EarlyPainter } from './earlyPainter';

const CORES = globalThis.navigator?.hardwareConcurrency || 1;
const COUNT = Math.min(2, CORES);
/** So many begin; where there are few cores the others wait until the page is there, for it needs the rest itself. */
const FIRST = CORES > 2 ? COUNT : 1;

/** What a painter is told, but for its number. */
type Unnumbered<T> = T extends { order: number } ? Omit<T, 'order'> : never;
export type News = Unnumbered<Exclude<ToPainter, { kind: 'read' }>>;
/** A message, or what makes it when it is to be sent. */
type Message = ToPainter | (() => ToPainter);
type Listener = { onAnswer: (answer: FromPainter) => void; onFailure: (why: string) => void };

/**
 * The workers that paint one page between them. They can be started, read its drawing and paint what was seen of it last
 * before there is a page: what they answer meanwhile is kept for it.
 */
export class Painters {
  private readonly workers: Worker[] = [];
  private readonly caughtUp: number[] = [];
  private order = 0;
  private reading: ArrayBuffer | null = null;
  /** What was answered before the page asked for anything itself: kept until it does, for it is not answered twice. */
  private early: FromPainter[] | null = [];
  private listener: Listener | null = null;
  private lastWish: Extract<ToPainter, { kind: 'want' }> | null = null;
  /** What each is told later on; null where it is told at once. The second is woken for it. */
  private readonly later: [Message[] | null, Message[] | null] = [null, FIRST < COUNT ? [] : null];
  private readonly callOff: (() => void)[] = [];

  private fetched: Promise<PackedDrawing> | null = null;

  /** Goes on with one that the page has started by itself, if there is one. */
  constructor(early: EarlyPainter | null = null) {
    if (early) {
      this.order = FIRST_ORDER;
      this.lastWish = early.wish;
      this.employ(early.worker, 0);
      for (const answer of early.heard) this.hear(0, answer);
      this.fetched = early.fetched.then(this.shareFetched, this.goOnWithout);
      // Nobody may be waiting for it.
      this.fetched.catch(() => undefined);
    }
    while (this.workers.length < FIRST) this.start();
    if (this.lastWish && FIRST > 1) this.want(this.lastWish);
  }

  /** What the first has asked the server for by itself, once: later on it is old, or of another drawing. Null where it has not. */
  takeFetched(): Promise<PackedDrawing> | null {
    const { fetched } = this;
    this.fetched = null;
    return fetched;
  }

  /** Whether tiles have been asked for. */
  get isAsked(): boolean {
    return this.lastWish !== null;
  }

  private start(i = this.workers.length): void {
    this.employ(new Worker(new URL('../../workers/tiles.worker.ts', import.meta.url), { type: 'module' }), i);
  }

  private employ(worker: Worker, i: number): void {
    this.workers[i] = worker;
    this.caughtUp[i] = 0;
    worker.onmessage = ({ data }: MessageEvent<FromPainter>) => this.hear(i, data);
    worker.onerror = ({ message }) => {
      this.reading = null;
      this.listener?.onFailure(message);
    };
  }

  /** The first reads what it has fetched; the others are given it. */
  private shareFetched = (packed: PackedDrawing): PackedDrawing => {
    this.reading = packed.bytes;
    for (let i = 1; i < COUNT; i++) this.send(i, { kind: 'read', order: FIRST_ORDER, bytes: packed.bytes });
    return packed;
  };

  /** The one that the page has started brings no drawing: another takes its place. */
  private goOnWithout = (why: Error): never => {
    this.workers[0].terminate();
    this.start(0);
    if (this.lastWish) this.want(this.lastWish);
    throw why;
  };

  private hear(i: number, answer: FromPainter): void {
    // That is told by itself.
    if (answer.kind === 'fetched') return;
    if (answer.kind === 'caughtUp') this.caughtUp[i] = answer.order;
    if (answer.kind !== 'failed') return this.early ? void this.early.push(answer) : this.listener?.onAnswer(answer);
    if (this.listener) this.listener.onFailure(answer.why);
    // Whoever listens then has it read once more.
    else this.reading = null;
  }

  /** The page is there: it hears all that is answered once it has taken what was before. */
  listen(listener: Listener): void {
    this.listener = listener;
  }

  /** What was answered before this, once; from now on whoever listens hears of it. */
  takeEarly(): FromPainter[] {
    const taken = this.early ?? [];
    this.early = null;
    return taken;
  }

  /** Tells them something, or what is made of it when they are told; gives its number. */
  tell(news: News | (() => News)): number {
    const order = ++this.order;
    if (typeof news === 'function') this.post(() => ({ ...news(), order }) as ToPainter);
    else this.post({ ...news, order } as ToPainter);
    return order;
  }

  /** Has them read a packed drawing, unless it is what they have read last. */
  read(bytes: ArrayBuffer): number {
    if (this.reading === bytes) return this.order;
    this.reading = bytes;
    this.post({ kind: 'read', order: ++this.order, bytes });
    return this.order;
  }

  near(message: Extract<ToPainter, { kind: 'near' }>): void {
    this.post(message);
  }

  /**
   * Asks for tiles; they share them like the fields of a chessboard, or one alone paints them: the others leave the rest of
   * the machine to the hand.
   */
  want(wish: Extract<ToPainter, { kind: 'want' }>, alone = false): void {
    this.lastWish = wish;
    const count = alone ? 1 : this.workers.length;
    this.workers.forEach((_, i) => {
      const own = wish.tiles.filter(([c, r]) => Math.abs(c + r) % count === i);
      this.send(i, { ...wish, tiles: own });
    });
  }

  /**
   * What comes next is much to paint, without haste: where there are few cores one begins with it once the page itself has
   * been seen, and the other when the page has time for it.
   */
  oneByOne(): void {
    if (CORES > 2) return;
    if (!this.later[0]) this.callOff[0] = whenSeen(() => this.goOn(0));
    if (!this.later[1]) this.callOff[1] = whenIdle(() => this.wake());
    this.later[0] ??= [];
    this.later[1] ??= [];
  }

  /** Both go on with all that they were not told; the second begins, if it has not yet. */
  wake(): void {
    const isNew = this.workers.length < COUNT;
    if (isNew) this.start();
    this.goOn(0);
    this.goOn(1);
    if (isNew && this.lastWish) this.want(this.lastWish);
  }

  private goOn(i: 0 | 1): void {
    const told = this.later[i] ?? [];
    this.later[i] = null;
    for (const message of told) this.send(i, message);
  }

  /** Whether the tiles show all that was told up to a number. */
  shows = (order: number): boolean => this.caughtUp.every((o) => o >= order);

  end(): void {
    for (const stop of this.callOff) stop();
    for (const worker of this.workers) worker.terminate();
  }

  private send(i: number, message: Message): void {
    const later = this.later[i];
    if (later) later.push(message);
    else postTo(this.workers[i], typeof message === 'function' ? message() : message);
  }

  private post(message: Message): void {
    for (let i = 0; i < COUNT; i++) this.send(i, message);
  }
}

/** Bytes are handed over, to each its own. */
function postTo(worker: Worker, message: ToPainter): void {
  if (message.kind !== 'read') return worker.postMessage(message);
  const bytes = message.bytes.slice(0);
  worker.postMessage({ ...message, bytes }, [bytes]);
}

let waiting: Painters | null = null;

/** Painters for a drawing that is about to be shown; `taken` tells whether its page has them by now. */
export function startPainters(drawing?: string): { painters: Painters; taken: () => boolean } {
  const painters = (waiting ??= new Painters(drawing === undefined ? null : takeEarly(drawing)));
  return { painters, taken: () => waiting !== painters };
}

/** The painters that were started for this page, or new ones. */
export function takePainters(): Painters {
  const { painters } = startPainters();
  waiting = null;
  return painters;
}

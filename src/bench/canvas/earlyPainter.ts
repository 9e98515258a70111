import type { FromPainter, ToPainter } from '@/workers/tileProtocol';

type Wish = Extract<ToPainter, { kind: 'want' }>;
export type Packed = NonNullable<Extract<FromPainter, { kind: 'fetched' }>['packed']>;

/** A painter that a page has started by itself, before any of the program had come: what it was told, and has answered so far. */
export type EarlyPainter = {
  readonly drawing: string;
  readonly worker: Worker;
  /** The drawing that it has asked for; rejects where that does not come, or the painter fails before. */
  readonly fetched: Promise<Packed>;
  readonly heard: FromPainter[];
  wish: Wish | null;
};

declare global {
  var yellowQuillEarly: EarlyPainter | undefined;
}

/** Starts one, which asks for the drawing itself, at `url`; it is kept where the program finds it. */
export function startEarly(script: string, drawing: string, url: string): void {
  const worker = new Worker(script, { name: url });
  const heard: FromPainter[] = [];
  worker.onmessage = ({ data }: MessageEvent<FromPainter>) => heard.push(data);
  const fetched = new Promise<Packed>((done, not) => {
    worker.addEventListener('error', ({ message }) => not(new Error(message)));
    worker.addEventListener('message', ({ data }: MessageEvent<FromPainter>) => {
      if (data.kind !== 'fetched') return;
      if (data.packed) done(data.packed);
      else not(new Error('The drawing has not come.'));
    });
  });
  // Nobody may be waiting for it.
  fetched.catch(() => undefined);
  globalThis.yellowQuillEarly = { drawing, worker, fetched, heard, wish: null };
}

/** Asks it for tiles. */
export function wishEarly(wish: Wish): void {
  const early = globalThis.yellowQuillEarly;
  if (!early) return;
  early.wish = wish;
  early.worker.postMessage(wish);
}

/** The one that was started for a drawing, once. */
export function takeEarly(drawing: string): EarlyPainter | null {
  const early = globalThis.yellowQuillEarly;
  globalThis.yellowQuillEarly = undefined;
  if (early?.drawing === drawing) return early;
  early?.worker.terminate();
  return null;
}

import type { FromPainter, ToPainter } from '@/workers/tileProtocol';

type Wish = Extract<ToPainter, { kind: 'want' }>;

/** A painter that a page has started by itself, before any of the program had come: what it was told, and has answered so far. */
export type EarlyPainter = {
  readonly drawing: string;
  readonly worker: Worker;
  readonly heard: FromPainter[];
  wish: Wish | null;
  failed: boolean;
};

declare global {
  var yellowQuillEarly: EarlyPainter | undefined;
}

/** Starts one, which asks for the drawing itself, at `url`; it is kept where the program finds it. */
export function startEarly(script: string, drawing: string, url: string): void {
  const worker = new Worker(script, { name: url });
  const early: EarlyPainter = { drawing, worker, heard: [], wish: null, failed: false };
  worker.onmessage = ({ data }: MessageEvent<FromPainter>) => early.heard.push(data);
  worker.onerror = () => (early.failed = true);
  globalThis.yellowQuillEarly = early;
}

/** Asks it for tiles. */
export function wishEarly(wish: Wish): void {
  const early = globalThis.yellowQuillEarly;
  if (!early) return;
  early.wish = wish;
  early.worker.postMessage(wish);
}

/** The one that was started for a drawing, once; none where it has failed. */
export function takeEarly(drawing: string): EarlyPainter | null {
  const early = globalThis.yellowQuillEarly;
  globalThis.yellowQuillEarly = undefined;
  if (early && early.drawing === drawing && !early.failed) return early;
  early?.worker.terminate();
  return null;
}

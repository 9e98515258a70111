import type { Looks } from '@/painting/paintLine';
import { FIRST_ORDER, type FromPainter, type PackedDrawing, type ToPainter } from '@/workers/tileProtocol';

type Wish = Extract<ToPainter, { kind: 'want' }>;

/** A painter that a page has started by itself, before any of the program had come: what it was told, and has answered so far. */
export type EarlyPainter = {
  readonly drawing: string;
  readonly worker: Worker;
  /** The drawing that it has asked for; rejects where that does not come, or the painter fails before. */
  readonly fetched: Promise<PackedDrawing>;
  readonly heard: FromPainter[];
  wish: Wish | null;
};

declare global {
  var yellowQuillEarly: EarlyPainter | undefined;
}

/** Starts one, which asks for the drawing itself, at `url`, and paints it so; it is kept where the program finds it. */
export function startEarly(script: string, drawing: string, url: string, looks: Looks): void {
  const worker = new Worker(script, { name: url });
  worker.postMessage({ kind: 'look', order: FIRST_ORDER, looks, solo: null } satisfies ToPainter);
  const heard: FromPainter[] = [];
  worker.onmessage = ({ data }: MessageEvent<FromPainter>) => heard.push(data);
  const fetched = new Promise<PackedDrawing>((done, not) => {
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

/** Asks the one that was started for tiles, if there is one. */
export function wishEarly(wish: Wish): EarlyPainter | null {
  const early = globalThis.yellowQuillEarly;
  if (!early) return null;
  early.wish = wish;
  early.worker.postMessage(wish);
  return early;
}

/** The one that was started for a drawing, once. */
export function takeEarly(drawing: string): EarlyPainter | null {
  const early = globalThis.yellowQuillEarly;
  globalThis.yellowQuillEarly = undefined;
  if (early?.drawing === drawing) return early;
  early?.worker.terminate();
  return null;
}

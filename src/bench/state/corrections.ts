import { proxy, wrap, type Remote } from 'comlink';
import type {
  ColourImage,
  Correction,
  GrayImage,
  Point,
  PulledRun,
  PulledShape,
  PullInkOptions,
  PullShapesOptions,
  Quad,
  Reference,
} from '@/core';
import type { Picture } from '@/core/colour/picture';
import type { PullTonesOptions } from '@/core/colour/pullTones';
import type { CorrectionWorker } from '@/workers/correct.worker';
import type { CorrectionSize } from '@/workers/correctProtocol';
import type { PullWorker } from '@/workers/pull.worker';
import { pictureUrl } from '@/workers/pictureUrl';
import { LazyWorker } from './lazyWorker';

/** Where the worker finds a reference's picture, upright and as large as it is worked on. */
export const sourceOf = (r: Pick<Reference, 'picture' | 'pixelWidth'>) => ({
  picture: r.picture,
  url: new URL(pictureUrl(r.picture, 'screen'), location.href).href,
  pixelWidth: r.pixelWidth,
});

const worker = new LazyWorker<CorrectionWorker>(
  () => new Worker(new URL('../../workers/correct.worker.ts', import.meta.url), { type: 'module' }),
  'the worker that corrects pictures',
);

type Source = ReturnType<typeof sourceOf>;

/** The worker that corrects pictures; started when it is first asked. */
export const correct = {
  render: (source: Source, list: readonly Correction[], size: CorrectionSize): Promise<ImageBitmap> =>
    worker.ask((api) => api.render(source, list, size)),
  tones: (source: Source, list: readonly Correction[]): Promise<number[]> =>
    worker.ask((api) => api.tones(source, list)),
  corners: (source: Source, list: readonly Correction[]): Promise<Quad | null> =>
    worker.ask((api) => api.corners(source, list)),
  skew: (source: Source, list: readonly Correction[]): Promise<number | null> =>
    worker.ask((api) => api.skew(source, list)),
  grey: (source: Source, list: readonly Correction[]): Promise<GrayImage> =>
    worker.ask((api) => api.grey(source, list)),
  colour: (source: Source, list: readonly Correction[]): Promise<ColourImage> =>
    worker.ask((api) => api.colour(source, list)),
  along: (source: Source, list: readonly Correction[], way: readonly Point[]): Promise<Point[]> =>
    worker.ask((api) => api.along(source, list, way)),
  thing: (source: Source, list: readonly Correction[], loose: readonly Point[]): Promise<Point[][]> =>
    worker.ask((api) => api.thing(source, list, loose)),
  /** What lines are laid against: ink is told in grey, edges in colour. */
  picture: (source: Source, list: readonly Correction[], target: Reference['target']): Promise<Picture> =>
    worker.ask((api): Promise<Picture> => (target === 'ink' ? api.grey(source, list) : api.colour(source, list))),
  areas: (source: Source, list: readonly Correction[], areas: readonly (readonly (readonly Point[])[])[]) =>
    worker.ask((api) => api.areas(source, list, areas)),
  pullTones: (
    source: Source,
    list: readonly Correction[],
    outlines: readonly (readonly Point[])[],
    options: PullTonesOptions,
  ) => worker.ask((api) => api.pullTones(source, list, outlines, options)),
  palette: (source: Source, list: readonly Correction[], count: number) =>
    worker.ask((api) => api.palette(source, list, count)),
};

/** What is being pulled from a picture: its promise, and how to call it off. */
export type Pulling<T> = { result: Promise<T>; stop(): void };

/** Has a worker of its own pull something. Called off, the promise rejects and the work ends. */
function pulled<T>(ask: (api: Remote<PullWorker>) => Promise<T>): Pulling<T> {
  const made = new Worker(new URL('../../workers/pull.worker.ts', import.meta.url), { type: 'module' });
  let stop = (): void => {};
  const stopped = new Promise<never>((_, reject) => {
    stop = () => reject(new Error('called off'));
    made.onerror = (e) => reject(new Error(e.message));
  });
  const result = Promise.race([ask(wrap<PullWorker>(made)), stopped]).finally(() => made.terminate());
  return { result, stop };
}

/** What can be pulled from a picture, as a start. `onProgress` hears how much of it is done, 0…1. */
export const pulling = {
  lines: (image: GrayImage, options: PullInkOptions, onProgress: (share: number) => void): Pulling<PulledRun[]> =>
    pulled((api) => api.pull(image, options, proxy(onProgress))),
  shapes: (
    image: ColourImage,
    options: PullShapesOptions,
    onProgress: (share: number) => void,
  ): Pulling<PulledShape[]> => pulled((api) => api.shapes(image, options, proxy(onProgress))),
};

/** Which pixels would count as ink at a level; null lets the paper around each decide. */
export async function inkMask(image: GrayImage, level: number | null): Promise<Uint8Array> {
  const made = new Worker(new URL('../../workers/pull.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await wrap<PullWorker>(made).mask(image, level ?? undefined);
  } finally {
    made.terminate();
  }
}

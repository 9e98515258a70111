import { transfer } from 'comlink';
import type { Cubic, Point, Reference } from '@/core';
import { pageToShares, sharesToPage } from '@/core/drawing/placement';
import { mapCubics } from '@/core/geometry/cubic';
import type { FollowWorker } from '@/workers/follow.worker';
import { correct, sourceOf } from './corrections';
import { LazyWorker } from './lazyWorker';

/** What the pen asks while it follows. Places are page units. */
export interface Follow {
  /** Makes a picture ready to be followed, unless it is; resolves when it is, rejects with words for a person. */
  prepare(r: Reference, target: 'ink' | 'edge'): Promise<void>;
  readonly state: 'idle' | 'preparing' | 'ready';
  /** The curves along the ink from one place to another; null where nothing leads there, or a newer place was asked for. */
  path(from: Point, to: Point): Promise<Cubic[] | null>;
}

type Asked = { from: Point; to: Point; answer: (cubics: Cubic[] | null) => void };

/** Follows in a worker: while it is at one place, only the newest of those asked for meanwhile is kept. */
export class FollowInWorker implements Follow {
  state: Follow['state'] = 'idle';
  private readonly worker = new LazyWorker<FollowWorker>(
    () => new Worker(new URL('../../workers/follow.worker.ts', import.meta.url), { type: 'module' }),
    'the worker that follows the ink',
    () => {
      this.key = '';
      this.state = 'idle';
    },
  );
  private reference: Reference | null = null;
  private size = { width: 1, height: 1 };
  private key = '';
  private ready: Promise<void> = Promise.resolve();
  private isAsking = false;
  private next: Asked | null = null;

  prepare(r: Reference, target: 'ink' | 'edge'): Promise<void> {
    // Where it lies on the page may change without the picture having to be made ready anew.
    this.reference = r;
    const key = JSON.stringify([r.picture, r.corrections, target]);
    if (key === this.key) return this.ready;
    this.key = key;
    this.state = 'preparing';
    this.ready = this.makeReady(r, target).then(
      () => {
        if (this.key === key) this.state = 'ready';
      },
      (error: unknown) => {
        if (this.key === key) {
          this.key = '';
          this.state = 'idle';
        }
        throw error;
      },
    );
    return this.ready;
  }

  private async makeReady(r: Reference, target: 'ink' | 'edge'): Promise<void> {
    const image = await correct.picture(sourceOf(r), r.corrections, target);
    this.size = { width: image.width, height: image.height };
    await this.worker.ask((api) => api.prepare(transfer(image, [image.data.buffer]), target));
  }

  path(from: Point, to: Point): Promise<Cubic[] | null> {
    this.next?.answer(null);
    return new Promise((answer) => {
      this.next = { from, to, answer };
      if (!this.isAsking) void this.work();
    });
  }

  private async work(): Promise<void> {
    this.isAsking = true;
    while (this.next) {
      const { from, to, answer } = this.next;
      this.next = null;
      answer(await this.ask(from, to).catch(() => null));
    }
    this.isAsking = false;
  }

  private async ask(from: Point, to: Point): Promise<Cubic[] | null> {
    const r = this.reference;
    if (!r || this.state !== 'ready') return null;
    const { width, height } = this.size;
    const inPicture = (p: Point): Point => {
      const s = pageToShares(r, p);
      return { x: s.x * width, y: s.y * height };
    };
    const onPage = (p: Point): Point => sharesToPage(r, { x: p.x / width, y: p.y / height });
    const cubics = await this.worker.ask((api) => api.path(inPicture(from), inPicture(to)));
    return cubics && mapCubics(cubics, onPage);
  }
}

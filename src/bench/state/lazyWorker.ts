import { wrap, type Remote } from 'comlink';

/** A worker that is started when it is first needed, and anew after it has failed: what it was asked then rejects. */
export class LazyWorker<T> {
  private running: { worker: Worker; api: Remote<T>; failed: Promise<never> } | null = null;

  /** `make` starts it (the bundler wants to see its address there); `what` names it in words for a person. */
  constructor(
    private readonly make: () => Worker,
    private readonly what: string,
    /** Hears that it has failed. */
    public onFailure: () => void = () => undefined,
  ) {}

  start(): { api: Remote<T>; failed: Promise<never> } {
    if (this.running) return this.running;
    const worker = this.make();
    const failed = new Promise<never>((_, reject) => {
      worker.onerror = (e) => {
        worker.terminate();
        this.running = null;
        this.onFailure();
        reject(new Error(e.message || `${this.what} has stopped`));
      };
    });
    // Nobody may be waiting when it fails.
    failed.catch(() => undefined);
    this.running = { worker, api: wrap<T>(worker), failed };
    return this.running;
  }

  /** Ends it; it is started anew when it is asked again. */
  end(): void {
    this.running?.worker.terminate();
    this.running = null;
  }

  ask<R>(question: (api: Remote<T>) => Promise<R>): Promise<R> {
    const { api, failed } = this.start();
    return Promise.race([question(api), failed]);
  }
}

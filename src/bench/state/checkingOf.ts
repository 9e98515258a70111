import type { Checks } from '@/workers/checks';
import { Checking, type Checker } from './checking';
import { LazyWorker } from './lazyWorker';
import type { Bench } from './store';

const checkWorker = (): Checker =>
  new LazyWorker<Checks>(
    () => new Worker(new URL('../../workers/check.worker.ts', import.meta.url), { type: 'module' }),
    'the worker that checks lines',
  );

const checkings = new WeakMap<Bench, Checking>();

/** The checks of a bench, from when they are started; none on a bench without a page, as in tests. */
export const checkingOf = (bench: Bench): Checking | undefined => checkings.get(bench);

export function startChecking(bench: Bench): () => void {
  const checking = new Checking(bench, checkWorker(), [checkWorker(), checkWorker()], window);
  checkings.set(bench, checking);
  return () => checking.dispose();
}

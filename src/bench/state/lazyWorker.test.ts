import { LazyWorker } from './lazyWorker';

/** A worker that hears nothing and can be made to fail. */
class Deaf {
  onerror: ((e: { message: string }) => void) | null = null;
  ended = false;
  addEventListener(): void {}
  removeEventListener(): void {}
  postMessage(): void {}
  terminate(): void {
    this.ended = true;
  }
}

test('one worker serves all; one that fails rejects what it was asked, is ended, and the next question gets another', async () => {
  const made: Deaf[] = [];
  let failures = 0;
  const make = (): Worker => {
    made.push(new Deaf());
    return made.at(-1) as unknown as Worker;
  };
  const worker = new LazyWorker<{ never(): void }>(make, 'the worker', () => failures++);
  expect(made).toHaveLength(0);
  const forever = () => new Promise<number>(() => undefined);
  const [first, second] = [worker.ask(forever), worker.ask(forever)];
  expect(made).toHaveLength(1);
  made[0].onerror!({ message: '' });
  await expect(first).rejects.toThrow('the worker has stopped');
  await expect(second).rejects.toThrow('the worker has stopped');
  expect([made[0].ended, failures]).toEqual([true, 1]);
  await expect(worker.ask(() => Promise.resolve(7))).resolves.toBe(7);
  expect(made).toHaveLength(2);
});

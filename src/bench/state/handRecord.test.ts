import { addLine } from '@/core/edits/lines';
import { emptyDrawing, firstStyle, plainPage } from '@/core/drawing/schema';
import { cornerAt } from '@/core/drawing/run';
import { createBench } from './store';
import { HandRecording, nothingDone } from './handRecord';
import { prefer } from './preferences';

const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
const line = (id: string) => ({
  id,
  style: firstStyle,
  runs: [{ closed: false, nodes: [cornerAt({ x: 0, y: 0 }), cornerAt({ x: 9, y: 0 }), cornerAt({ x: 9, y: 9 })] }],
});

/** A bench with its record, time and presses in our hands. */
function setting(kept = new Map<string, string>()) {
  jest.useFakeTimers();
  let time = 0;
  let seen = true;
  const hands = new EventTarget();
  const drawing = emptyDrawing(page, { id: 's', name: 'S', tag: '#446688' });
  const bench = createBench({ id: 'd', title: 'D', stage: 'trace', drawing, revision: 0 });
  const store = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  };
  const recording = new HandRecording(bench, 'd', {
    hands: hands as unknown as Pick<Window, 'addEventListener'>,
    isSeen: () => seen,
    now: () => time,
    store,
  });
  return {
    bench,
    recording,
    kept,
    deed: () => hands.dispatchEvent(new Event('keydown')),
    look: (is: boolean) => (seen = is),
    pass(seconds: number) {
      for (let s = 0; s < seconds; s++) {
        time++;
        jest.advanceTimersByTime(1000);
      }
    },
  };
}

afterEach(() => {
  prefer({ handRecord: true });
  jest.useRealTimers();
});

test('nodes laid and what is taken back are counted, and kept for the next visit', () => {
  const { bench, recording, kept } = setting();
  bench.commit(addLine(bench.getState().drawing, 's', line('a')));
  bench.commit(addLine(bench.getState().drawing, 's', line('b')));
  bench.undo();
  expect(recording.store.getState()).toMatchObject({ nodes: 6, undos: 1 });
  recording.dispose();
  expect(setting(kept).recording.store.getState()).toMatchObject({ nodes: 6, undos: 1 });
});

test('time counts at its stage, while someone looks and does something', () => {
  const { bench, recording, pass, deed, look } = setting();
  pass(20);
  bench.setState({ stage: 'refine' });
  deed();
  pass(10);
  expect(recording.store.getState().stages).toEqual({ trace: 20, refine: 10 });
  look(false);
  pass(30);
  look(true);
  pass(300);
  // A minute after the last deed nobody is at work.
  expect(recording.store.getState().stages.refine).toBeLessThanOrEqual(40);
  recording.clear();
  expect(recording.store.getState()).toEqual(nothingDone);
  recording.dispose();
});

test('put off, nothing is counted', () => {
  const { bench, recording, pass } = setting();
  prefer({ handRecord: false });
  bench.commit(addLine(bench.getState().drawing, 's', line('a')));
  pass(20);
  expect(recording.store.getState()).toEqual(nothingDone);
  recording.dispose();
});

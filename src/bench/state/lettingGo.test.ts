import { applyChange } from '@/core';
import { moveLines } from '@/core/edits/lines';
import { allLines } from '@/core/drawing/items';
import { wanderingDrawing } from '@/core/test/drawings';
import { benchWith } from '../test/hand';
import { LettingGo } from './lettingGo';
import { MANY, type Bench } from './store';

const page = new EventTarget();
Object.assign(globalThis, {
  addEventListener: page.addEventListener.bind(page),
  removeEventListener: page.removeEventListener.bind(page),
});
/** Each look at the clock is 10 ms later: a portion is one part. */
let clock = 0;
beforeEach(() => void jest.spyOn(performance, 'now').mockImplementation(() => (clock += 10)));
afterEach(() => void jest.restoreAllMocks());
const nextTask = (): Promise<void> => new Promise((done) => setImmediate(done));

function counting(parts: number): { making: Generator<undefined, void>; done: number[] } {
  const done: number[] = [];
  function* making(): Generator<undefined, void> {
    for (let i = 0; i < parts; i++) {
      done.push(i);
      yield;
    }
  }
  return { making: making(), done };
}

describe('something long that a hand has let go of', () => {
  it('is made in portions, a task each', async () => {
    let task = 0;
    const made: number[] = [];
    function* making(): Generator<undefined, void> {
      for (let i = 0; i < 4; i++) {
        made.push(task);
        queueMicrotask(() => task++);
        yield;
      }
    }
    new LettingGo().begin(making());
    expect(made).toEqual([]);
    while (made.length < 4) await nextTask();
    expect(made).toEqual([0, 1, 2, 3]);
  });

  it('is whole before the next deed of a hand is heard, and is not begun again', () => {
    const { making, done } = counting(4);
    const lettingGo = new LettingGo();
    lettingGo.begin(making);
    let heard = -1;
    page.addEventListener('keydown', () => (heard = done.length), { once: true });
    page.dispatchEvent(new Event('keydown'));
    expect(heard).toBe(4);
    lettingGo.finish();
    page.dispatchEvent(new Event('pointerdown'));
    expect(done).toEqual([0, 1, 2, 3]);
  });

  it('throws what making it throws, once, and may ask for itself to be finished', () => {
    const lettingGo = new LettingGo();
    function* making(): Generator<undefined, void> {
      yield;
      lettingGo.finish();
      throw new Error('it does not fit');
    }
    lettingGo.begin(making());
    expect(lettingGo.finish).toThrow('it does not fit');
    expect(lettingGo.finish).not.toThrow();
  });
});

describe('very many lines let go of', () => {
  const drawing = wanderingDrawing(3 * MANY, 1, 5);
  const by = { x: 3, y: -2 };
  /** A bench on which all are chosen, shown moved, and let go of. */
  function letGo(): Bench {
    const bench = benchWith(drawing);
    bench.choose(allLines(drawing).map((l) => l.id));
    bench.showMoved(by);
    bench.letGo(moveLines(drawing, bench.getState().lines, by));
    return bench;
  }
  const x = (bench: Bench): number => allLines(bench.getState().drawing)[0].runs[0].nodes[0].point.x;
  const before = allLines(drawing)[0].runs[0].nodes[0].point.x;

  it('are seen moved until they are, by one change', async () => {
    const bench = letGo();
    const made: string[] = [];
    bench.onChange(({ change }) => made.push(change.label));
    expect([x(bench), bench.getState().shift]).toEqual([before, by]);
    while (bench.getState().shift) {
      expect(bench.getState().drawing).toBe(drawing);
      await nextTask();
    }
    expect(x(bench)).toBeCloseTo(before + 3, 9);
    expect([made, bench.getState().undoable.length, bench.getState().lines.size]).toEqual([
      [`Move ${3 * MANY} lines`],
      1,
      3 * MANY,
    ]);
    bench.undo();
    expect(x(bench)).toBe(before);
  });

  it.each<[string, (b: Bench) => void, number]>([
    ['undo takes them back', (b) => b.undo(), 0],
    ['the next change is made on them', (b) => b.commit(moveLines(b.getState().drawing, ['l0'], { x: 0, y: 1 })), 2],
    ['what is shown next is shown of them', (b) => b.show(null), 1],
    ['they are made when that is asked for', (b) => b.settle(), 1],
  ])('%s', (_, deed, changes) => {
    const bench = letGo();
    deed(bench);
    expect([bench.getState().shift, bench.getState().undoable.length]).toEqual([null, changes]);
    expect(x(bench)).toBeCloseTo(before + (changes > 0 ? 3 : 0), 9);
  });

  it('are moved in what was read anew in a pause, and nothing of it is lost', async () => {
    const bench = letGo();
    const { id } = allLines(drawing)[1];
    // The clock is looked at after each part.
    let looks = 0;
    jest.spyOn(performance, 'now').mockImplementation(() => {
      if (++looks === 2) bench.setState({ drawing: applyChange(drawing, moveLines(drawing, [id], { x: 0, y: 50 })) });
      return (clock += 10);
    });
    while (bench.getState().shift) await nextTask();
    expect(looks).toBeGreaterThan(2);
    const point = (d: typeof drawing) => allLines(d)[1].runs[0].nodes[0].point;
    expect(point(bench.getState().drawing).y).toBeCloseTo(point(drawing).y + 48, 9);
    expect(x(bench)).toBeCloseTo(before + 3, 9);
  });

  it('what cannot be made is refused with words, and shown where it was', () => {
    const bench = benchWith(drawing);
    bench.choose(['l0']);
    bench.showMoved(by);
    bench.letGo({ label: 'Move', steps: [{ step: 'translate', ids: ['l0', 'nobody'], by }] });
    bench.settle();
    expect([bench.getState().shift, bench.getState().drawing]).toEqual([null, drawing]);
    expect(bench.getState().message?.text).toBe('Item nobody is not there. Nothing was changed.');
  });
});

import { emptyDrawing, plainPage, type Drawing, type Line, type Point } from '@/core';
import { addLine, removeLines } from '@/core/edits/lines';
import { moveNodes } from '@/core/edits/nodes';
import { laidReference } from '@/core/test/laidReference';
import { levelLine as level, twoStrokes } from '@/core/test/levelLines';
import { checks as own } from '@/workers/checks';
import { Checking, type Checker } from './checking';
import { preferences, prefer } from './preferences';
import { createBench, type Bench } from './store';

const p = (x: number, y: number): Point => ({ x, y });
const mockImage = twoStrokes;
jest.mock('./corrections', () => ({
  sourceOf: () => ({}),
  correct: { picture: () => Promise.resolve(mockImage()) },
}));

/** The checks themselves, asked as a worker is; and what it was asked. */
class Near implements Checker {
  constructor(private readonly checks: typeof own) {}

  onFailure = (): void => undefined;
  readonly asked: string[] = [];
  readonly api = new Proxy(own, {
    get:
      (_, name: keyof typeof own) =>
      async (...given: unknown[]): Promise<unknown> => {
        this.asked.push(name);
        await Promise.resolve();
        return (this.checks[name] as (...g: unknown[]) => unknown)(...given);
      },
  });
  ask: Checker['ask'] = (question) => question(this.api as unknown as Parameters<typeof question>[0]);
  end(): void {}
}

const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
const drawing = (...lines: Line[]): Drawing => {
  const empty = emptyDrawing(page, { id: 's', name: 'S', tag: '#000000' });
  return { ...empty, references: [laidReference(page, 400, 300)], sheets: [{ ...empty.sheets[0], items: lines }] };
};

let target: EventTarget;
let bench: Bench;
let near: Near;
let seeker: Near;
/** Other workers have their own. */
const [others, more] = [1, 2].map(() => {
  let theirs = own;
  jest.isolateModules(() => (theirs = (jest.requireActual('@/workers/checks') as { checks: typeof own }).checks));
  return theirs;
});
let checking: Checking;
const state = () => checking.store.getState();
const soon = (ms = 3_000): Promise<void> => jest.advanceTimersByTimeAsync(ms);

async function begin(d: Drawing, stage: 'refine' | 'trace' = 'refine'): Promise<void> {
  target = new EventTarget();
  bench = createBench({ id: 'd', title: 'Test', stage, drawing: d, revision: 0 });
  near = new Near(own);
  seeker = new Near(others);
  checking = new Checking(bench, near, [seeker, new Near(more)], target as Window);
  await soon();
}

beforeEach(() => {
  jest.useFakeTimers();
  prefer({ distance: true, coverage: true, inkReach: 12 });
});
afterEach(() => {
  checking.dispose();
  jest.useRealTimers();
});

test('lines, sums, covered ink and notes of a drawing are there once it has been opened a while', async () => {
  await begin(drawing(level('a', 100, 100), level('b', 203, 203)));
  expect(state().state).toBe('ready');
  expect([...state().distances.keys()]).toEqual(['a', 'b']);
  expect(state().sums!.drawing.mean).toBeCloseTo(1.5, 1);
  expect(state().covers[0].covered).toBeGreaterThan(0.9);
  expect(state().sought).toBe(true);
});

test('under a hand the figures are those of what it does; taken back, those of the drawing', async () => {
  await begin(drawing(level('a', 100, 100, 100, 100, 100, 100), level('b', 200, 200)));
  const before = state().sums!;
  bench.show(moveNodes(bench.getState().drawing, [{ line: 'a', run: 0, node: 2 }], p(0, 8)));
  await soon(1);
  expect(state().distances.get('a')!.max).toBeGreaterThan(6);
  expect(state().sums!.drawing.max).toBe(state().distances.get('a')!.max);
  expect(near.asked).toContain('moved');
  bench.show(null);
  await soon();
  expect(state().sums!.drawing.max).toBeCloseTo(before.drawing.max, 5);
});

test('a change is followed: a line that comes and goes, with its figures, its ink and its notes', async () => {
  await begin(drawing(level('a', 100, 100)));
  expect(state().covers[0].covered).toBeLessThan(0.6);
  bench.commit(addLine(bench.getState().drawing, 's', level('b', 200, 200)));
  bench.commit(addLine(bench.getState().drawing, 's', level('c', 200.2, 200.2)));
  await soon();
  expect(state().covers[0].covered).toBeGreaterThan(0.9);
  expect(state().open.map((n) => n.kind)).toContain('doubled');
  bench.commit(removeLines(bench.getState().drawing, ['b', 'c']));
  await soon();
  expect([...state().distances.keys()]).toEqual(['a']);
  expect(state().covers[0].covered).toBeLessThan(0.6);
  expect(state().open).toEqual([]);
});

test('while a hand presses only what it moves is looked at; the rest when it has let go', async () => {
  await begin(drawing(level('a', 100, 100)));
  target.dispatchEvent(new Event('pointerdown'));
  near.asked.length = 0;
  bench.commit(addLine(bench.getState().drawing, 's', level('b', 200, 200)));
  await soon();
  expect(near.asked.filter((q) => q !== 'change')).toEqual([]);
  target.dispatchEvent(new Event('pointerup'));
  await soon();
  expect(state().distances.has('b')).toBe(true);
});

test('nothing is checked where lines are not refined; a failure begins again', async () => {
  await begin(drawing(level('a', 100, 100)));
  bench.setState({ stage: 'trace' });
  await soon();
  near.asked.length = 0;
  bench.commit(addLine(bench.getState().drawing, 's', level('b', 200, 200)));
  await soon(2_000);
  expect(near.asked.filter((q) => q !== 'change')).toEqual([]);
  bench.setState({ stage: 'refine' });
  await soon();
  expect(state().distances.has('b')).toBe(true);
  near.onFailure();
  expect(state().distances.size).toBe(0);
  expect(state().failed).toMatch(/begin again/);
  await soon(5_000);
  expect([...state().distances.keys()]).toEqual(['a', 'b']);
  expect(state().failed).toBeNull();
});

test('what is switched off is not asked for', async () => {
  prefer({ coverage: false });
  await begin(drawing(level('a', 100, 100)));
  expect(near.asked).not.toContain('covers');
  expect(near.asked).not.toContain('uncovered');
  expect(preferences.getState().distance).toBe(true);
  expect(state().sums).not.toBeNull();
});

test('several notes can be put right at once; what was worked out for a drawing that has changed is nothing', async () => {
  await begin(drawing(level('a', 100, 100, 100, 100), level('b', 200, 200, 200, 200)));
  const needless = checking.openOf('needless');
  expect(needless.length).toBeGreaterThan(1);
  const both = [needless[0], needless.at(-1)!].map((n) => checking.ask.fix([n], 'Fix'));
  await soon();
  for (const found of await Promise.all(both)) expect(found).toMatchObject({ left: [], edit: { label: 'Fix' } });
  const [first] = await Promise.all(both);
  expect(first!.edit.steps).toHaveLength(1);

  const ask = near.ask;
  let changed = false;
  near.ask = (question) => {
    const answer = ask(question);
    if (near.asked.at(-1) === 'goOnFixing' && !changed) {
      changed = true;
      bench.commit(removeLines(bench.getState().drawing, ['b']));
    }
    return answer;
  };
  const late = checking.ask.fix([needless[0]], 'Fix');
  await soon();
  expect(await late).toBeNull();
  expect(near.asked).toContain('dropFix');
});

test('while lines are traced they are looked through ahead, a change at a time, and without their pictures', async () => {
  await begin(drawing(level('a', 100, 100)), 'trace');
  await soon();
  expect(seeker.asked).toEqual(['load', 'notes']);
  bench.commit(addLine(bench.getState().drawing, 's', level('b', 200, 200)));
  await soon(1_000);
  expect(seeker.asked).toEqual(['load', 'notes', 'change']);
  await soon();
  expect(seeker.asked).toEqual(['load', 'notes', 'change', 'notes']);
  expect(state().sought).toBe(false);
  expect(near.asked).toEqual([]);
});

test('notes do not wait for what is measured; where their worker fails it begins again', async () => {
  target = new EventTarget();
  bench = createBench({
    id: 'd',
    title: 'Test',
    stage: 'refine',
    drawing: drawing(level('a', 100, 100, 100, 100)),
    revision: 0,
  });
  near = new Near(own);
  seeker = new Near(others);
  const ask = near.ask;
  near.ask = (question) => (near.asked.includes('picture') ? new Promise(() => undefined) : ask(question));
  checking = new Checking(bench, near, [seeker, new Near(more)], target as Window);
  await soon(1_000);
  expect(state()).toMatchObject({ sought: true, sums: null });
  expect(checking.openOf('needless').length).toBeGreaterThan(0);
  seeker.onFailure();
  bench.commit(addLine(bench.getState().drawing, 's', level('b', 200, 200)));
  await soon();
  bench.setState({ stage: 'trace' });
  await soon(4_000);
  expect(seeker.asked.filter((q) => q === 'load')).toHaveLength(2);
});

import type { FromPainter, ToPainter } from '@/workers/tileProtocol';

class FakePainter {
  static all: FakePainter[] = [];
  onmessage: ((e: { data: FromPainter }) => void) | null = null;
  onerror: ((e: { message: string }) => void) | null = null;
  told: ToPainter[] = [];
  isEnded = false;
  private heardBy: Record<string, (e: object) => void> = {};
  addEventListener(kind: string, hear: (e: object) => void): void {
    this.heardBy[kind] = hear;
  }
  constructor() {
    FakePainter.all.push(this);
  }
  postMessage(m: ToPainter): void {
    this.told.push(structuredClone(m));
  }
  terminate(): void {
    this.isEnded = true;
  }
  answer(data: FromPainter): void {
    this.onmessage!({ data });
    this.heardBy.message?.({ data });
  }
  fail(message: string): void {
    this.onerror?.({ message });
    this.heardBy.error?.({ message });
  }
}

globalThis.Worker = FakePainter as never;
const bitmap = { close: () => undefined } as ImageBitmap;
const seen = { minX: 0, minY: 0, maxX: 1, maxY: 1 };
const tiles: [number, number][] = [
  [0, 0],
  [1, 0],
  [0, 1],
  [1, 1],
];

/** The module as it is where there are so many cores. */
async function where(cores: number): Promise<typeof import('./painters')> {
  jest.resetModules();
  FakePainter.all = [];
  Object.defineProperty(globalThis, 'navigator', { value: { hardwareConcurrency: cores }, configurable: true });
  return import('./painters');
}

const kindsTold = (p: FakePainter): string[] => p.told.map((m) => m.kind);

test('what was painted before the page was there is kept for it, once, and is not read again', async () => {
  const { startPainters, takePainters } = await where(4);
  const { painters, taken } = startPainters('a');
  const bytes = new ArrayBuffer(8);
  painters.read(bytes);
  painters.want({ kind: 'want', scale: 1, tiles, seen });
  const [first, second] = FakePainter.all;
  first.answer({ kind: 'tile', scale: 1, column: 0, row: 0, part: null, bitmap });
  first.answer({ kind: 'caughtUp', order: 1 });
  expect(taken()).toBe(false);
  const page = takePainters();
  expect(page).toBe(painters);
  expect(taken()).toBe(true);
  const heard: FromPainter[] = [];
  page.listen({ onAnswer: (a) => heard.push(a), onFailure: () => undefined });
  // What comes until the page asks for tiles itself has no place there yet.
  first.answer({ kind: 'tile', scale: 1, column: 1, row: 1, part: null, bitmap });
  expect(heard).toEqual([]);
  expect(page.takeEarly().map((a) => a.kind)).toEqual(['tile', 'caughtUp', 'tile']);
  expect(page.takeEarly()).toEqual([]);
  expect(page.read(bytes)).toBe(1);
  expect(kindsTold(first)).toEqual(['read', 'want']);
  expect(page.shows(1)).toBe(false);
  second.answer({ kind: 'caughtUp', order: 1 });
  expect(page.shows(1)).toBe(true);
  expect(heard.map((a) => a.kind)).toEqual(['caughtUp']);
  // The next page has painters of its own.
  expect(takePainters()).not.toBe(page);
});

test('a drawing that could not be read ahead is read once more', async () => {
  const { startPainters, takePainters } = await where(4);
  const bytes = new ArrayBuffer(8);
  startPainters().painters.read(bytes);
  FakePainter.all[0].answer({ kind: 'failed', why: 'damaged' });
  expect(takePainters().read(bytes)).toBe(2);
  expect(kindsTold(FakePainter.all[0])).toEqual(['read', 'read']);
});

test('where there are few cores one begins; the other is told all in its order when it is woken', async () => {
  const { takePainters } = await where(2);
  const page = takePainters();
  const failures: string[] = [];
  page.listen({ onAnswer: () => undefined, onFailure: (why) => failures.push(why) });
  page.read(new ArrayBuffer(8));
  page.tell({ kind: 'hide', lines: ['a'] });
  page.want({ kind: 'want', scale: 1, tiles, seen });
  expect(FakePainter.all).toHaveLength(1);
  const [first] = FakePainter.all;
  expect(first.told.at(-1)).toMatchObject({ tiles });
  first.answer({ kind: 'caughtUp', order: 2 });
  expect(page.shows(2)).toBe(true);
  page.wake();
  page.wake();
  expect(FakePainter.all).toHaveLength(2);
  const second = FakePainter.all[1];
  expect(kindsTold(second)).toEqual(['read', 'hide', 'want']);
  expect(second.told.at(-1)).toMatchObject({ tiles: [tiles[1], tiles[2]] });
  expect(first.told.at(-1)).toMatchObject({ tiles: [tiles[0], tiles[3]] });
  // What it has not caught up with is not shown yet.
  expect(page.shows(2)).toBe(false);
  expect(page.tell({ kind: 'hide', lines: [] })).toBe(3);
  expect(second.told.at(-1)).toEqual({ kind: 'hide', lines: [], order: 3 });
  second.answer({ kind: 'failed', why: 'no room' });
  expect(failures).toEqual(['no room']);
});

test('much to paint is begun by one where there are few cores, once the page was seen; the other hears all of it in its order once there is time', async () => {
  jest.useFakeTimers();
  const { takePainters } = await where(2);
  const page = takePainters();
  page.listen({ onAnswer: () => undefined, onFailure: () => undefined });
  page.wake();
  page.oneByOne();
  page.oneByOne();
  const order = page.tell({ kind: 'hide', lines: ['a'] });
  page.want({ kind: 'want', scale: 1, tiles, seen });
  const [first, second] = FakePainter.all;
  expect([kindsTold(first), kindsTold(second)]).toEqual([[], []]);
  jest.advanceTimersByTime(1);
  expect([kindsTold(first), kindsTold(second)]).toEqual([['hide', 'want'], []]);
  first.answer({ kind: 'caughtUp', order });
  expect(page.shows(order)).toBe(false);
  jest.runAllTimers();
  expect(kindsTold(second)).toEqual(['hide', 'want']);
  expect(second.told.at(-1)).toMatchObject({ tiles: [tiles[1], tiles[2]] });
  page.tell({ kind: 'hide', lines: [] });
  expect(kindsTold(second)).toHaveLength(3);
  page.oneByOne();
  page.tell({ kind: 'hide', lines: ['b'] });
  page.end();
  jest.runAllTimers();
  expect([first, second].map((p) => kindsTold(p).length)).toEqual([3, 3]);
  jest.useRealTimers();
});

test('where there are enough cores all are told at once, however much it is', async () => {
  const { takePainters } = await where(4);
  const page = takePainters();
  page.oneByOne();
  page.tell({ kind: 'hide', lines: ['a'] });
  expect(FakePainter.all.map(kindsTold)).toEqual([['hide'], ['hide']]);
});

const draft = { draft: true, seeThrough: false, bare: false };

/** One that the page has started for a drawing, and asked for tiles. */
async function startedEarly(drawing: string, cores = 2) {
  const program = await where(cores);
  const { startEarly, wishEarly } = await import('./earlyPainter');
  startEarly('/painter.js', drawing, '/packed', draft);
  wishEarly({ kind: 'want', scale: 1, tiles, seen });
  return { ...program, early: FakePainter.all[0] };
}

test('a painter that the page has started by itself goes on: what it has fetched is read by the others alone, what it has painted is kept', async () => {
  const { startPainters, takePainters, early } = await startedEarly('a');
  early.answer({ kind: 'tile', scale: 1, column: 0, row: 0, part: null, bitmap });
  const { painters } = startPainters('a');
  expect(painters.isAsked).toBe(true);
  const bytes = new ArrayBuffer(8);
  early.answer({ kind: 'fetched', packed: { about: '{}', bytes } });
  early.answer({ kind: 'caughtUp', order: 1 });
  expect(await painters.takeFetched()).toEqual({ about: '{}', bytes });
  // It is old by the time that somebody asks again.
  expect(painters.takeFetched()).toBeNull();
  const page = takePainters();
  expect(page).toBe(painters);
  expect(page.takeEarly().map((a) => a.kind)).toEqual(['tile', 'caughtUp']);
  expect(page.read(bytes)).toBe(1);
  expect(page.shows(1)).toBe(true);
  expect(early.told[0]).toEqual({ kind: 'look', order: 1, looks: draft, solo: null });
  expect(kindsTold(early)).toEqual(['look', 'want']);
  expect(page.tell({ kind: 'hide', lines: [] })).toBe(2);
  page.wake();
  expect(FakePainter.all.map(kindsTold)).toEqual([
    ['look', 'want', 'hide', 'want'],
    ['read', 'hide', 'want'],
  ]);
  expect(FakePainter.all[1].told[0]).toMatchObject({ order: 1 });
});

test('where there are more cores it shares with the others at once', async () => {
  const { takePainters, startPainters, early } = await startedEarly('a', 4);
  const { painters } = startPainters('a');
  early.answer({ kind: 'fetched', packed: { about: '{}', bytes: new ArrayBuffer(8) } });
  await painters.takeFetched();
  const [, second] = FakePainter.all;
  expect([early.told.at(-1), second.told.at(-2)]).toMatchObject([
    { tiles: [tiles[0], tiles[3]] },
    { tiles: [tiles[1], tiles[2]] },
  ]);
  expect(second.told.at(-1)).toMatchObject({ kind: 'read' });
  expect(takePainters().shows(1)).toBe(false);
});

test('where one brings no drawing, or fails, before or after the program has come, another takes its place; that of another drawing is let go', async () => {
  const ways: ((early: FakePainter) => void)[] = [
    (early) => early.answer({ kind: 'fetched', packed: null }),
    (early) => early.fail('no such script'),
  ];
  for (const goesWrong of ways)
    for (const isBefore of [true, false]) {
      const { startPainters, takePainters, early } = await startedEarly('a');
      if (isBefore) goesWrong(early);
      const fetched = startPainters('a').painters.takeFetched();
      if (!isBefore) goesWrong(early);
      await expect(fetched).rejects.toThrow(/not come|no such script/);
      expect(FakePainter.all.map((p) => p.isEnded)).toEqual([true, false]);
      expect(takePainters().read(new ArrayBuffer(8))).toBe(2);
      expect(FakePainter.all.map(kindsTold)).toEqual([
        ['look', 'want'],
        ['want', 'read'],
      ]);
    }
  const other = await startedEarly('a');
  const { painters } = other.startPainters('b');
  expect([painters.takeFetched(), painters.isAsked, other.early.isEnded]).toEqual([null, false, true]);
});

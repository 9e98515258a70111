import type { Box } from '@/core';
import { commonBox } from '@/core/geometry/box';
import { wanderingDrawing } from '@/core/test/drawings';
import { boxOfTile, TILE, type FromPainter, type ToPainter } from '@/workers/tileProtocol';

/** A painter that does what it is told, when it is told to. */
class FakePainter {
  static all: FakePainter[] = [];
  onmessage: ((e: { data: FromPainter }) => void) | null = null;
  onerror: ((e: { message: string }) => void) | null = null;
  told: ToPainter[] = [];
  ended = false;

  constructor() {
    FakePainter.all.push(this);
  }
  postMessage(m: ToPainter): void {
    this.told.push(m);
  }
  terminate(): void {
    this.ended = true;
  }
  answer(data: FromPainter): void {
    this.onmessage!({ data });
  }
  /** Paints all that was asked for last. */
  paint(): number {
    const want = this.told.findLast((m) => m.kind === 'want');
    if (want?.kind !== 'want') return 0;
    for (const [column, row] of want.tiles) {
      this.answer({
        kind: 'tile',
        scale: want.scale,
        column,
        row,
        part: null,
        bitmap: { close: () => undefined } as ImageBitmap,
      });
    }
    return want.tiles.length;
  }
}

globalThis.Worker = FakePainter as never;
Object.defineProperty(globalThis, 'navigator', { value: { hardwareConcurrency: 4 }, configurable: true });

const window = { width: 1000, height: 600 };
const view = { scale: 1, x: 0, y: 0 };
const drawn: number[][] = [];
const context = { drawImage: (_: unknown, ...at: number[]) => drawn.push(at) } as unknown as CanvasRenderingContext2D;

async function newBoard() {
  FakePainter.all = [];
  const failures: string[] = [];
  let news = 0;
  const { TileBoard } = await import('./tileBoard');
  const board = new TileBoard(
    () => news++,
    (why) => failures.push(why),
  );
  return { board, painters: FakePainter.all, failures, news: () => news };
}

beforeEach(() => {
  drawn.length = 0;
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

test('the window and a ring around it are asked for, each tile of one painter, the middle first', async () => {
  const { board, painters } = await newBoard();
  board.see(view, window, 1);
  const wants = painters.map((p) => p.told.findLast((m) => m.kind === 'want'));
  const tiles = wants.flatMap((w) => (w?.kind === 'want' ? w.tiles : []));
  const keys = tiles.map((t) => t.join());
  expect(new Set(keys).size).toBe(keys.length);
  // Columns 0 and 1, rows 0 and 1 are in the window.
  expect(keys.sort()).toEqual([-1, 0, 1, 2].flatMap((c) => [-1, 0, 1, 2].map((r) => `${c},${r}`)).sort());
  for (const w of wants) if (w?.kind === 'want') expect(Math.max(...w.tiles.slice(0, 2).flat())).toBeLessThanOrEqual(1);
  board.see(view, window, 1);
  expect(painters[0].told.filter((m) => m.kind === 'want')).toHaveLength(1);
});

test('what a painter that has begun before paints until the board asks for tiles is shown', async () => {
  FakePainter.all = [];
  const { startPainters } = await import('./painters');
  const { wishOf } = await import('./wantedTiles');
  const { painters } = startPainters();
  painters.want(wishOf(view, window, 1));
  const [first, second] = FakePainter.all;
  first.paint();
  const { TileBoard } = await import('./tileBoard');
  const board = new TileBoard(
    () => undefined,
    () => undefined,
  );
  second.paint();
  board.see(view, window, 1);
  board.paint(context, view, window, 1, true);
  expect(board.isSharp(view, window, 1)).toBe(true);
});

test('old tiles are shown, scaled, until all of the new ones are there; then it is sharp', async () => {
  const { board, painters } = await newBoard();
  board.see(view, window, 1);
  painters.forEach((p) => p.paint());
  board.paint(context, view, window, 1, true);
  expect(board.isSharp(view, window, 1)).toBe(true);
  expect(drawn).toContainEqual([TILE, 0]);

  const nearer = { scale: 1.2, x: 0, y: 0 };
  board.see(nearer, window, 1);
  expect(painters[0].told.filter((m) => m.kind === 'want')).toHaveLength(1);
  drawn.length = 0;
  board.paint(context, nearer, window, 1, false);
  expect(drawn).toContainEqual([
    Math.round(TILE * 1.2),
    0,
    Math.round(TILE * 2.4) - Math.round(TILE * 1.2),
    Math.round(TILE * 1.2),
  ]);
  expect(board.isSharp(nearer, window, 1)).toBe(false);
  jest.advanceTimersByTime(200);
  painters[0].paint();
  board.paint(context, nearer, window, 1, true);
  expect(board.isSharp(nearer, window, 1)).toBe(false);
  painters[1].paint();
  board.paint(context, nearer, window, 1, true);
  expect(board.isSharp(nearer, window, 1)).toBe(true);
});

test('it is sharp as soon as what is seen of each tile is there; a hand that pans on waits for the rest', async () => {
  const { board, painters } = await newBoard();
  board.see(view, window, 1);
  const wish = painters[0].told.findLast((m) => m.kind === 'want');
  const seen = wish?.kind === 'want' ? wish.seen : (view as never);
  expect(seen).toMatchObject({ minX: -48, maxX: 1048 });
  const answer = (column: number, row: number, part: Box | null): void => {
    const bitmap = { close: () => undefined } as ImageBitmap;
    painters[0].answer({ kind: 'tile', scale: 1, column, row, part, bitmap });
  };
  const partOf = (column: number, row: number): Box => commonBox(seen, boxOfTile(column, row, 1));
  for (const [column, row] of [
    [0, 0],
    [1, 0],
    [0, 1],
  ])
    answer(column, row, partOf(column, row));
  answer(1, 1, { ...partOf(1, 1), maxY: 590 });
  board.paint(context, view, window, 1, true);
  expect(board.isSharp(view, window, 1)).toBe(false);
  answer(1, 1, partOf(1, 1));
  board.paint(context, view, window, 1, true);
  expect(board.isSharp(view, window, 1)).toBe(true);
  const panned = { ...view, y: -60 };
  expect(board.isSharp(panned, window, 1)).toBe(false);
  for (const column of [0, 1]) answer(column, 1, null);
  expect(board.isSharp(panned, window, 1)).toBe(true);
});

test('where tiles take long a zoom in waits for its end, a zoom out does not', async () => {
  const { board, painters } = await newBoard();
  const wants = (): number => painters[0].told.filter((m) => m.kind === 'want').length;
  const seen = (...scales: number[]): void => scales.forEach((scale) => board.see({ ...view, scale }, window, 1));
  const shown = (scale: number, after: number): void => {
    jest.advanceTimersByTime(after);
    painters.forEach((p) => p.paint());
    board.paint(context, { ...view, scale }, window, 1, true);
  };
  seen(1);
  shown(1, 300);
  seen(1.6, 2.1, 9);
  expect(wants()).toBe(1);
  jest.advanceTimersByTime(40);
  expect(wants()).toBe(2);
  shown(9, 0);
  // These came at once.
  seen(20);
  expect(wants()).toBe(3);
  // On its way, then at rest.
  shown(20, 300);
  expect(wants()).toBe(4);
  seen(12);
  expect(wants()).toBe(5);
});

test('a zoom that goes far does not wait for its end', async () => {
  const { board, painters } = await newBoard();
  board.see(view, window, 1);
  painters.forEach((p) => p.paint());
  const wants = (): number => painters[0].told.filter((m) => m.kind === 'want').length;
  for (const scale of [1.6, 0.7]) board.see({ ...view, scale }, window, 1);
  expect(wants()).toBe(1);
  board.see({ ...view, scale: 2.1 }, window, 1);
  expect(wants()).toBe(2);
  board.see({ ...view, scale: 1.3 }, window, 1);
  expect(wants()).toBe(3);
});

test('it has caught up when the last painter has; lines are hidden once', async () => {
  const { board, painters } = await newBoard();
  const order = board.load(wanderingDrawing(2, 2, 1));
  expect(board.shows(order)).toBe(false);
  painters[0].answer({ kind: 'caughtUp', order });
  expect(board.shows(order)).toBe(false);
  painters[1].answer({ kind: 'caughtUp', order });
  expect(board.shows(order)).toBe(true);
  const hidden = board.hide(['l0']);
  expect(board.hide(['l0'])).toBe(hidden);
  expect(painters.map((p) => p.told.filter((m) => m.kind === 'hide').length)).toEqual([1, 1]);
});

test('a painter that fails is told of, and all end with the board', async () => {
  const { board, painters, failures, news } = await newBoard();
  painters[1].answer({ kind: 'failed', why: 'no memory' });
  painters[0].onerror!({ message: 'gone' });
  expect([failures, news()]).toEqual([['no memory', 'gone'], 0]);
  board.dispose();
  expect(painters.every((p) => p.ended)).toBe(true);
});

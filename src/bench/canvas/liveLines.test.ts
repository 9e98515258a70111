import { applyChange } from '@/core';
import { bodyHull } from '@/core/drawing/run';
import { boxesMeet } from '@/core/geometry/box';
import { removeLines } from '@/core/edits/lines';
import { moveNodes } from '@/core/edits/nodes';
import { wanderingDrawing } from '@/core/test/drawings';
import { allLines } from '@/core/drawing/items';
import { plainLooks } from '@/painting/paintLine';
import type { View } from '../state/view';
import { createBench, MANY } from '../state/store';
import { differingLines, LiveLines } from './liveLines';
import { changesGround, changesMarks } from './whatChanged';

const drawing = wanderingDrawing(12, 3, 5);
const moved = (line: string, by: number) =>
  applyChange(drawing, { id: 'm', ...moveNodes(drawing, [{ line, run: 0, node: 1 }], { x: by, y: 0 }) });

test('only lines on the move are drawn by hand, and it is news when they become others', () => {
  const live = new LiveLines();
  expect(live.move(drawing, drawing)).toBe(false);
  expect(live.move(drawing, moved('l3', 4))).toBe(true);
  expect([...live.moved]).toEqual(['l3']);
  const further = moved('l3', 9);
  expect(live.move(drawing, further)).toBe(false);
  expect(live.lines).toEqual(differingLines(drawing, further).lines);
  expect(live.move(drawing, moved('l5', 4))).toBe(true);
  expect(live.move(drawing, drawing)).toBe(true);
  expect(live.lines).toEqual([]);
});

test('a changed line is drawn by hand until the painter has come so far', () => {
  const live = new LiveLines();
  const { lines } = differingLines(drawing, moved('l3', 4));
  live.await(lines, 7);
  live.await([], 8);
  expect([live.isPainted, live.lines]).toEqual([false, lines]);
  expect(live.drop((order) => order < 7)).toBe(false);
  expect(live.drop((order) => order <= 7)).toBe(true);
  expect(live.isPainted).toBe(true);
});

test('very many that wait are painted once for a view, as a picture; few of them, and what moves, in every frame', () => {
  const made = { width: 0, height: 0 };
  const strokes = { own: 0, page: 0, picture: 0 };
  const context = (kind: 'own' | 'page'): CanvasRenderingContext2D =>
    new Proxy({} as Record<string, unknown>, {
      get: (own, key: string) =>
        own[key] ??
        (() => {
          if (key === 'stroke') strokes[kind]++;
          if (key === 'drawImage') strokes.picture++;
        }),
    }) as unknown as CanvasRenderingContext2D;
  const g = globalThis as { document?: unknown; Path2D?: unknown };
  g.document = { createElement: () => Object.assign(made, { getContext: () => context('own') }) };
  g.Path2D = class {
    moveTo() {}
    bezierCurveTo() {}
    lineTo() {}
    closePath() {}
  };
  const crowd = wanderingDrawing(MANY + 10, 1, 5);
  const [page, live] = [context('page'), new LiveLines()];
  const painted = (view: View, drawing = crowd): Record<string, number> => {
    Object.assign(strokes, { own: 0, page: 0, picture: 0 });
    const s = { drawing, view, window: { width: 300, height: 200 }, solo: null };
    live.paint(page, drawing, s, 2, () => null, plainLooks);
    return { ...strokes };
  };
  const view = { scale: 0.05, x: 20, y: 20 };
  const lines = allLines(crowd);
  live.await(lines.slice(0, 3), 1);
  expect(painted(view)).toEqual({ own: 0, page: 3, picture: 0 });
  live.await(lines.slice(3), 2);
  const whole = live.box;
  expect(painted(view)).toEqual({ own: MANY + 10, page: 0, picture: 1 });
  expect([made.width, made.height]).toEqual([600, 400]);
  expect(painted(view)).toEqual({ own: 0, page: 0, picture: 1 });
  expect(painted({ ...view, x: 29 })).toEqual({ own: MANY + 10, page: 0, picture: 1 });
  // Of those that lie beyond the window there is nothing to paint.
  const near = lines.filter((l) => boxesMeet(bodyHull(l), { minX: 100, minY: 0, maxX: 400, maxY: 200 })).length;
  expect(painted({ scale: 1, x: -100, y: 0 }).own).toBe(near);
  expect(near).toBeGreaterThan(9);
  // Taken back before the tiles show it, it is gone at once.
  const without = applyChange(crowd, { id: 'r', ...removeLines(crowd, ['l7', 'l8']) });
  expect(painted(view, without).own).toBe(MANY + 8);
  // What is not drawn in each frame is nothing that others lie over.
  expect(whole).toBeNull();
  expect(live.drop((order) => order < 2)).toBe(true);
  expect(painted(view).own).toBe(MANY + 7);
  expect(live.drop(() => true)).toBe(true);
  expect(painted(view)).toEqual({ own: 0, page: 0, picture: 0 });
  // A hand that has let go of so many is followed by pictures of them.
  live.await(lines, 3, true);
  expect(live.isPainted).toBe(true);
  live.await(lines.slice(0, 2), 4, true);
  expect(live.isPainted).toBe(false);
});

test('a hand that moves a line has the marks painted anew, and not the ground', () => {
  const bench = createBench({ id: 'd', title: 'T', stage: 'refine', drawing, revision: 0 });
  const seen = { ground: 0, marks: 0 };
  bench.subscribe((s, before) => {
    seen.ground += Number(changesGround(s, before));
    seen.marks += Number(changesMarks(s, before));
  });
  const edit = moveNodes(drawing, [{ line: 'l3', run: 0, node: 1 }], { x: 4, y: 0 });
  bench.show(edit);
  bench.commit(edit);
  expect(seen).toEqual({ ground: 0, marks: 2 });
  bench.choose(['l3']);
  bench.setState({ view: { scale: 2, x: 0, y: 0 } });
  bench.setState({ save: { kind: 'saved', revision: 3 } });
  expect(seen).toEqual({ ground: 2, marks: 4 });
});

import fc from 'fast-check';
import { applyChange } from '../../change/apply';
import { findNotes } from '../../check/findNotes';
import { linesOf } from '../../drawing/items';
import { cubicsOf, nearestOnLine } from '../../drawing/run';
import { emptyDrawing, firstStyle, plainPage, type Drawing, type Node, type Run } from '../../drawing/schema';
import { evaluate, straightCubic } from '../../geometry/cubic';
import { distance, type Point } from '../../geometry/point';
import { inkPicture } from '../../test/inkPicture';
import { laidReference } from '../../test/laidReference';
import { fixAll, fixNote } from './fixNote';
import { inkJudge } from './inkJudge';

const p = (x: number, y: number): Point => ({ x, y });
const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });

function drawing(...nodes: Node[][]): Drawing {
  const empty = emptyDrawing(page, { id: 's', name: 'S', tag: '#446688' });
  const items = nodes.map((list, i) => ({ id: `l${i}`, style: firstStyle, runs: [{ closed: false, nodes: list }] }));
  return { ...empty, sheets: [{ ...empty.sheets[0], items }] };
}
const runOf = (d: Drawing): Run => linesOf(d.sheets[0])[0].runs[0];
const node = (point: Point, into: Point | null, out: Point | null, kind: Node['kind'] = 'corner'): Node => ({
  point,
  in: into,
  out,
  kind,
});
const turned = (by: Point, degrees: number): Point => {
  const a = (degrees * Math.PI) / 180;
  return p(by.x * Math.cos(a) - by.y * Math.sin(a), by.x * Math.sin(a) + by.y * Math.cos(a));
};

test('a kink is made smooth where it is, and the line beyond it is not seen to move', () => {
  const degrees = fc.integer({ min: 4, max: 24 });
  const length = fc.integer({ min: 40, max: 150 });
  let [smooth, brought] = [0, 0];
  fc.assert(
    fc.property(degrees, length, length, fc.integer({ min: -30, max: 30 }), (turn, before, after, bend) => {
      const way = turned(p(1, 0), turn);
      const end = p(200 + after * way.x, 150 + after * way.y);
      const d = drawing([
        node(p(200 - before, 150 + bend), null, p(before / 3, -bend / 2)),
        node(p(200, 150), p(-before / 3, 0), p((after / 3) * way.x, (after / 3) * way.y)),
        node(end, p(-after / 3, bend / 4), null),
      ]);
      const notes = findNotes(d).filter((n) => n.kind === 'kink');
      if (notes.length === 0) return;
      const fixed = applyChange(d, { id: 'f', ...fixNote(d, notes[0]) });
      if (runOf(fixed) === runOf(d)) return;
      smooth++;
      expect(findNotes(fixed).filter((n) => n.kind === 'kink')).toEqual([]);
      const count = (of: Drawing, kind: string): number => findNotes(of).filter((n) => n.kind === kind).length;
      for (const kind of ['needless', 'wild', 'crossing']) if (count(fixed, kind) > count(d, kind)) brought++;
      const [line] = linesOf(fixed.sheets[0]);
      for (const c of cubicsOf(runOf(d)))
        for (let i = 0; i <= 20; i++) {
          const at = evaluate(c, i / 20);
          if (distance(at, p(200, 150)) > 9) expect(nearestOnLine(line, at)!.distance).toBeLessThanOrEqual(0.2);
        }
    }),
    { numRuns: 200, seed: 3 },
  );
  expect(smooth).toBeGreaterThan(150);
  expect(brought).toBe(0);
});

test('a wild handle on a line that follows its ink is divided, on one that does not it is shortened', () => {
  // A bow whose handles are longer than the way between its ends.
  const bow = [node(p(120, 200), null, p(-60, -160)), node(p(180, 200), p(60, -160), null)];
  const curve = cubicsOf({ closed: false, nodes: bow });
  const along = Array.from({ length: 60 }, (_, i) => evaluate(curve[0], i / 59));
  const image = inkPicture(400, 300, [{ cubics: curve, width: 5 }]);
  const d = { ...drawing(bow), references: [laidReference(page, 400, 300)] };
  const judge = inkJudge(d, new Map([['r', image]]), 12);
  const [note] = findNotes(d).filter((n) => n.kind === 'wild');
  const onInk = applyChange(d, { id: 'f', ...fixNote(d, note, undefined, judge) });
  expect(runOf(onInk).nodes).toHaveLength(3);
  for (const at of along) expect(nearestOnLine(linesOf(onInk.sheets[0])[0], at)!.distance).toBeLessThan(1e-3);
  const bare = applyChange(d, { id: 'f', ...fixNote(d, note) });
  expect(runOf(bare).nodes).toHaveLength(2);
});

test('a loop that is there in the ink stays, and it is said; one that is not is taken out', () => {
  const loop = [
    node(p(60, 200), null, p(60, 0)),
    node(p(200, 120), p(90, 0), p(-90, 0), 'smooth'),
    node(p(340, 200), p(-60, 0), null),
  ];
  const cubics = cubicsOf({ closed: false, nodes: loop });
  const d = { ...drawing(loop), references: [laidReference(page, 400, 300)] };
  const notes = findNotes(d).filter((n) => n.kind === 'crossing');
  expect(notes).toHaveLength(1);
  const drawn = inkPicture(400, 300, [{ cubics, width: 4 }]);
  const straight = inkPicture(400, 300, [{ cubics: [straightCubic(p(60, 200), p(340, 200))], width: 4 }]);
  const judged = (image: typeof drawn) => fixAll(d, notes, 'Fix', undefined, inkJudge(d, new Map([['r', image]]), 12));
  expect(judged(drawn).left).toEqual(notes);
  expect(judged(straight).left).toEqual([]);
});

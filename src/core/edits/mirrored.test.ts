import fc from 'fast-check';
import { applyChange, inverseOf as undoOf } from '../change/apply';
import { findLine } from '../drawing/find';
import { allLines } from '../drawing/items';
import { cornerAt, cubicsOf } from '../drawing/run';
import { emptyDrawing, firstStyle, plainPage, type Drawing, type Line } from '../drawing/schema';
import { evaluate } from '../geometry/cubic';
import { mapPoint } from '../geometry/matrix';
import { distance, type Point } from '../geometry/point';
import { addLine, removeLines, reshapeLines } from './lines';
import { joinHalves, mirroredEdit, mirrorMaps, type Images, type Mirror } from './mirrored';
import { moveNodes } from './nodes';

const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
const empty = emptyDrawing(page, { id: 's', name: 'Sheet', tag: '#8f2d63' });
const line = (id: string, points: readonly Point[]): Line => ({
  id,
  style: firstStyle,
  runs: [{ closed: false, nodes: points.map((p) => cornerAt(p)) }],
});
const c = fc.integer({ min: 0, max: 300 });
const points = fc.uniqueArray(fc.record({ x: c, y: c }), {
  minLength: 2,
  maxLength: 5,
  selector: (p) => `${p.x} ${p.y}`,
});
const mirrors: fc.Arbitrary<Mirror> = fc.oneof(
  fc.record({ kind: fc.constantFrom('across' as const, 'down' as const), at: fc.record({ x: c, y: c }) }),
  fc.record({
    kind: fc.constant('round' as const),
    at: fc.record({ x: c, y: c }),
    count: fc.integer({ min: 2, max: 7 }),
  }),
);

/** Does one edit after the other in a mirror, and keeps who is whose image. */
class Drawn {
  readonly sets = new Map<string, Images>();
  constructor(
    public d: Drawing,
    private readonly mirror: Mirror,
  ) {}

  do(make: (d: Drawing) => ReturnType<typeof addLine>): void {
    const maps = mirrorMaps(this.mirror);
    const idsFor = (id: string): Images => {
      const ids = maps.map((_, k) => (k === 0 ? id : `${id}-${k}`));
      for (const one of ids) this.sets.set(one, ids);
      return ids;
    };
    const change = { id: 'c', ...mirroredEdit(this.d, make(this.d), maps, (id) => this.sets.get(id), idsFor) };
    const after = applyChange(this.d, change);
    // It is one change, and its inverse takes all of it back.
    expect(applyChange(after, undoOf(change, 'u', 'Undo'))).toEqual(this.d);
    this.d = after;
  }
}

const sameUnder = (d: Drawing, mirror: Mirror, id: string, images: Images): void => {
  const maps = mirrorMaps(mirror);
  const own = cubicsOf(findLine(d, images[0])!.line.runs[0]);
  images.forEach((image, k) => {
    const its = cubicsOf(findLine(d, image)!.line.runs[0]);
    expect(its).toHaveLength(own.length);
    its.forEach((cubic, i) => expect(distance(cubic[3], mapPoint(maps[k], own[i][3]))).toBeLessThan(1e-6));
  });
  expect(images).toContain(id);
};

test('a line, its nodes moved on any of its images, and its going are the same in all places; undo is one step', () => {
  fc.assert(
    fc.property(mirrors, points, fc.nat(), c, (mirror, list, which, by) => {
      const drawn = new Drawn(empty, mirror);
      drawn.do((d) => addLine(d, 's', line('a', list)));
      const images = drawn.sets.get('a')!;
      expect(allLines(drawn.d)).toHaveLength(images.length);
      sameUnder(drawn.d, mirror, 'a', images);
      const held = images[which % images.length];
      drawn.do((d) => moveNodes(d, [{ line: held, run: 0, node: 0 }], { x: by, y: 7 }));
      sameUnder(drawn.d, mirror, held, images);
      drawn.do((d) => removeLines(d, [held]));
      expect(allLines(drawn.d)).toEqual([]);
    }),
    { numRuns: 60 },
  );
});

test('what an edit itself does to several of one set stays as it has it', () => {
  const drawn = new Drawn(empty, { kind: 'across', at: { x: 200, y: 0 } });
  drawn.do((d) =>
    addLine(
      d,
      's',
      line('a', [
        { x: 50, y: 50 },
        { x: 90, y: 50 },
      ]),
    ),
  );
  drawn.do((d) => removeLines(d, ['a-1']));
  expect(allLines(drawn.d)).toEqual([]);
  drawn.do((d) =>
    addLine(
      d,
      's',
      line('b', [
        { x: 50, y: 50 },
        { x: 90, y: 50 },
      ]),
    ),
  );
  const moved = [cornerAt({ x: 1, y: 1 }), cornerAt({ x: 2, y: 2 })];
  const runs = [{ closed: false, nodes: moved }];
  drawn.do((d) =>
    reshapeLines(
      d,
      new Map([
        ['b', runs],
        ['b-1', runs],
      ]),
      'Both',
    ),
  );
  expect(allLines(drawn.d).map((l) => l.runs)).toEqual([runs, runs]);
});

test('halves whose ends lie on the axis become one line, closed where both do, each half the other’s image', () => {
  const mirror: Mirror = { kind: 'across', at: { x: 200, y: 0 } };
  const half = [
    { x: 200, y: 40 },
    { x: 120, y: 90 },
    { x: 150, y: 200 },
  ];
  const joined = (list: Point[]): Line[] => {
    const drawn = new Drawn(empty, mirror);
    drawn.do((d) => addLine(d, 's', line('a', list)));
    const after = applyChange(drawn.d, { id: 'j', ...joinHalves(drawn.d, mirror, drawn.sets.get('a')!) });
    return allLines(after);
  };
  const [open] = joined(half);
  expect(open.runs[0]).toMatchObject({ closed: false });
  expect(open.runs[0].nodes).toHaveLength(5);
  const vase = joined([...half, { x: 200, y: 260 }]);
  expect(vase).toHaveLength(1);
  expect(vase[0].runs[0].closed).toBe(true);
  expect(vase[0].runs[0].nodes).toHaveLength(6);
  const all = cubicsOf(vase[0].runs[0]).flatMap((k) => [0, 0.5].map((t) => evaluate(k, t)));
  for (const p of all) {
    const image = { x: 400 - p.x, y: p.y };
    expect(Math.min(...all.map((q) => distance(q, image)))).toBeLessThan(1e-6);
  }
  expect(
    joined([
      { x: 100, y: 40 },
      { x: 120, y: 90 },
    ]),
  ).toHaveLength(2);
});

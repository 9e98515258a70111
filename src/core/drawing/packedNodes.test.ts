import { dequal } from 'dequal';
import fc from 'fast-check';
import { packed, unpackedItems } from '../formats/packed';
import { anyNode } from '../test/anyNode';
import { wanderingDrawing } from '../test/drawings';
import { lineOnGrid } from './grid';
import { isLine } from './items';
import { NodeReader, PackedNodes, packedNodesOf, withPackedNodes } from './packedNodes';
import { isPlainLine } from './plainLine';
import { controlBox, movedOnGrid, movedRuns } from './run';
import type { Line } from './schema';
import { traceLine } from './trace';

const node = anyNode(fc.integer({ min: -900, max: 900 }));
const [plain] = wanderingDrawing(1, 2, 1).sheets[0].items.filter(isLine);
const line: fc.Arbitrary<Line> = fc
  .array(
    fc.record(
      { closed: fc.boolean(), nodes: fc.array(node, { minLength: 1, maxLength: 5 }) },
      { noNullPrototype: true },
    ),
    {
      minLength: 1,
      maxLength: 3,
    },
  )
  .map((runs) => ({ ...plain, runs }));

/** A line as it comes from packed bytes. */
const come = (l: Line): Line => unpackedItems(packed([l]))[0] as Line;

/** What a line is drawn by. */
function drawn(l: Line): (string | number)[][] {
  const told: (string | number)[][] = [];
  const tell =
    (name: string) =>
    (...places: number[]): void =>
      void told.push([name, ...places]);
  traceLine({ moveTo: tell('M'), lineTo: tell('L'), bezierCurveTo: tell('C'), closePath: tell('Z') }, l);
  return told;
}

const roundless = (r: Line['runs'][number]) => ({ ...r, nodes: r.nodes.map(({ radius: _, ...n }) => n) });
const cornerShape = {
  point: fc.constant({ x: 1, y: 2 }),
  in: fc.constant(null),
  out: fc.constant(null),
  kind: fc.constant('corner' as const),
};

/** How often somebody has asked for packed nodes while something was done. */
function nodesAsked(during: () => void): number {
  const unpacked = jest.spyOn(PackedNodes.prototype, 'unpacked');
  during();
  const { length } = unpacked.mock.calls;
  unpacked.mockRestore();
  return length;
}

describe('a run whose nodes are packed', () => {
  test('is like any other, wherever it goes', () => {
    fc.assert(
      fc.property(line, (l) => {
        const runs = (): Line['runs'] => come(l).runs;
        expect(runs()).toEqual(l.runs);
        expect(dequal(runs(), l.runs)).toBe(true);
        expect(JSON.stringify(runs())).toBe(JSON.stringify(l.runs));
        expect(structuredClone(runs())).toEqual(l.runs);
        expect(runs().map((r) => ({ ...r }))).toEqual(l.runs);
        expect(runs().map((r) => Object.keys(r))).toEqual(l.runs.map((r) => Object.keys(r)));
      }),
    );
  });

  test('has the same nodes each time, frozen or not', () => {
    const [run] = Object.freeze(come(plain).runs.map((r) => Object.freeze(r)));
    expect(run.nodes).toBe(run.nodes);
    expect(run.nodes).toEqual(plain.runs[0].nodes);
  });

  test('has its box without them', () => {
    fc.assert(
      fc.property(line, (l) => {
        const made = come(l);
        const box = controlBox(made);
        expect(packedNodesOf(made.runs[0])).toBeDefined();
        expect(box).toEqual(controlBox(l));
      }),
    );
  });

  test('is moved as each of its nodes would be, to the byte, and stays packed', () => {
    const step = fc.integer({ min: -(2 ** 30), max: 2 ** 30 }).map((n) => n / 2 ** 20);
    const moves = fc.array(fc.record({ x: step, y: step }), { maxLength: 6 });
    fc.assert(
      fc.property(line, moves, (l, offsets) => {
        const [packedOne, plainOne] = offsets.reduce<[Line['runs'], Line['runs']]>(
          ([a, b], by) => [movedOnGrid(a, by), movedRuns(b, by)],
          [come(l).runs, l.runs],
        );
        expect(packedNodesOf(packedOne[0])).toBeDefined();
        expect(lineOnGrid({ runs: packedOne }).runs).toBe(packedOne);
        expect(controlBox({ runs: packedOne })).toEqual(controlBox({ runs: plainOne }));
        expect(JSON.stringify(packedOne)).toBe(JSON.stringify(plainOne));
      }),
    );
  });

  test('is packed again as its nodes would be, moved or not, which are not made for it', () => {
    fc.assert(
      fc.property(line, fc.constantFrom(0, -7, 0.5), (l, x) => {
        const given = { ...l, runs: movedRuns(l.runs, { x, y: 0 }) };
        const made = { ...l, runs: movedOnGrid(come(l).runs, { x, y: 0 }) };
        const asked = nodesAsked(() => expect(packed([made])).toEqual(packed([given])));
        expect(asked).toBe(0);
      }),
    );
  });

  test('is drawn as its nodes are, which are not made for it', () => {
    fc.assert(
      fc.property(line, fc.boolean(), (l, isRoundless) => {
        const given = isRoundless ? { ...l, runs: l.runs.map(roundless) } : l;
        const made = come(given);
        const asked = nodesAsked(() => expect(drawn(made)).toEqual(drawn(given)));
        if (isRoundless) expect(asked).toBe(0);
      }),
    );
  });

  test('a lone node is a point, whatever it says of rounding', () => {
    const lone = { ...plain.runs[0].nodes[0], radius: 3, out: null };
    const { x, y } = lone.point;
    const given = { ...plain, runs: [{ closed: false, nodes: [lone] }] };
    for (const l of [given, come(given)])
      expect(drawn(l)).toEqual([
        ['M', x, y],
        ['L', x, y],
      ]);
  });

  test('is sound just when its nodes are, and that is seen without them', () => {
    const numbers = fc.oneof(
      { weight: 60, arbitrary: fc.integer({ min: -1e7, max: 1e7 }) },
      { weight: 1, arbitrary: fc.constantFrom(1e7 + 1, -1e8, Infinity, -Infinity) },
    );
    const radius = fc.constantFrom(0, 100_000, 100_000.5, -1, Infinity);
    const nodes = fc.array(
      fc.oneof(anyNode(numbers), fc.record({ ...cornerShape, radius }, { noNullPrototype: true })),
      {
        minLength: 1,
        maxLength: 4,
      },
    );
    let sound = 0;
    fc.assert(
      fc.property(nodes, fc.constantFrom(0, 4e6, -1e7), (list, x) => {
        const given = { ...plain, runs: [{ closed: true, nodes: list }] };
        const made = come(given);
        const moved = { ...made, runs: movedOnGrid(made.runs, { x, y: 0 }) };
        const asked = nodesAsked(() => {
          expect(isPlainLine(moved)).toBe(isPlainLine({ ...given, runs: movedRuns(given.runs, { x, y: 0 }) }));
        });
        expect(asked).toBe(0);
        if (isPlainLine(moved)) sound++;
      }),
      { numRuns: 500 },
    );
    expect(sound).toBeGreaterThan(50);
  });

  test('with a kind that there is not is not sound', () => {
    const flags = new Uint8Array([7]);
    const run = (bits: Uint8Array) =>
      withPackedNodes({ closed: false, nodes: 1 }, new NodeReader(new Float64Array(2), bits).take(1));
    expect(isPlainLine({ ...plain, runs: [run(flags)] })).toBe(false);
    expect(isPlainLine({ ...plain, runs: [run(new Uint8Array([3]))] })).toBe(true);
  });

  test('that does not lie on the grid is laid on it', () => {
    const off = {
      ...plain,
      runs: [{ closed: false, nodes: [{ ...plain.runs[0].nodes[0], point: { x: 0.1, y: 2 } }] }],
    };
    const made = lineOnGrid(come(off));
    expect(made).toEqual(lineOnGrid(off));
    expect(made.runs[0].nodes[0].point.x).not.toBe(0.1);
  });

  test('is one that is not once it is another', () => {
    const [run] = come(plain).runs;
    const moved = { ...run, nodes: run.nodes.map((n) => ({ ...n, point: { x: n.point.x + 1e4, y: n.point.y } })) };
    expect(packedNodesOf(moved)).toBeUndefined();
    expect(packedNodesOf({ ...run })).toBeUndefined();
    expect(controlBox({ runs: [moved] }).minX).toBe(controlBox({ runs: [run] }).minX + 1e4);
  });
});

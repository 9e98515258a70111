import { dequal } from 'dequal';
import fc from 'fast-check';
import { packed, unpackedItems } from '../formats/packed';
import { anyNode } from '../test/anyNode';
import { wanderingDrawing } from '../test/drawings';
import { lineOnGrid } from './grid';
import { isLine } from './items';
import { packedNodesOf } from './packedNodes';
import { controlBox, movedOnGrid, movedRuns } from './run';
import type { Line } from './schema';

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

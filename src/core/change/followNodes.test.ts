import fc from 'fast-check';
import { cutAtNode } from '../edits/cut';
import type { Edit } from './edit';
import { addNode, moveNodes, removeNodes } from '../edits/nodes';
import { joinEnds } from '../edits/join';
import { moveLines, removeLines } from '../edits/lines';
import { reverseLines, startAtNode } from '../edits/runs';
import { transformLines } from '../edits/transform';
import { allLines } from '../drawing/items';
import type { Drawing, Line } from '../drawing/schema';
import type { NodeRef } from '../drawing/nodeRef';
import { wanderingDrawing } from '../test/drawings';
import { applyChange, inverseOf } from './apply';
import { changeOf } from './changeOf';
import { followMark, followNodes } from './followNodes';

/** Who stands where: a name for each node, by line and run. */
type Model = ReadonlyMap<string, readonly (readonly string[])[]>;
const named = (d: Drawing): Model =>
  new Map(allLines(d).map((l) => [l.id, l.runs.map((r, i) => r.nodes.map((_, k) => `${l.id}/${i}/${k}`))]));

type Deed = { edit: (d: Drawing, id: string) => Edit; model: (m: Model, d: Drawing, id: string) => Model };
const pick = (d: Drawing, n: number): Line => allLines(d)[n % allLines(d).length];
const setRun = (m: Model, line: string, names: readonly string[]): Model => new Map(m).set(line, [names]);
const same = (m: Model): Model => m;

/** Each deed with what it does to the names, worked out without looking at where anything lies. */
const deeds: ((a: number, b: number) => Deed)[] = [
  (a, b) => ({
    edit: (d) =>
      moveNodes(d, [{ line: pick(d, a).id, run: 0, node: b % pick(d, a).runs[0].nodes.length }], { x: a, y: 3 }),
    model: same,
  }),
  (a, b) => ({ edit: (d) => moveLines(d, [pick(d, a).id, pick(d, b).id], { x: b, y: a }), model: same }),
  (a, b) => ({
    edit: (d) => transformLines(d, [pick(d, a).id], { a: 0, b: 1, c: -1, d: 0, e: b, f: a }, false, 'Turn'),
    model: same,
  }),
  (a, b) => ({
    edit: (d) => addNode(d, pick(d, a), 0, b % (pick(d, a).runs[0].nodes.length - 1), 0.4),
    model: (m, d, id) => {
      const line = pick(d, a);
      return setRun(m, line.id, m.get(line.id)![0].toSpliced((b % (line.runs[0].nodes.length - 1)) + 1, 0, id));
    },
  }),
  (a, b) => ({
    edit: (d) =>
      pick(d, a).runs[0].nodes.length > 3
        ? removeNodes(d, [{ line: pick(d, a).id, run: 0, node: b % pick(d, a).runs[0].nodes.length }])
        : { label: 'x', steps: [] },
    model: (m, d) => {
      const line = pick(d, a);
      const { nodes } = line.runs[0];
      return nodes.length > 3 ? setRun(m, line.id, m.get(line.id)![0].toSpliced(b % nodes.length, 1)) : m;
    },
  }),
  (a) => ({
    edit: (d) => reverseLines(d, [pick(d, a).id]),
    model: (m, d) => setRun(m, pick(d, a).id, m.get(pick(d, a).id)![0].toReversed()),
  }),
  (a, b) => ({
    edit: (d) => startAtNode(d, { line: pick(d, a).id, run: 0, node: b % pick(d, a).runs[0].nodes.length }),
    model: (m, d) => {
      const line = pick(d, a);
      const [names] = m.get(line.id)!;
      const k = b % names.length;
      return line.runs[0].closed ? setRun(m, line.id, [...names.slice(k), ...names.slice(0, k)]) : m;
    },
  }),
  (a) => ({
    edit: (d) => (allLines(d).length > 2 ? removeLines(d, [pick(d, a).id]) : { label: 'x', steps: [] }),
    model: (m, d) => (allLines(d).length > 2 ? new Map([...m].filter(([id]) => id !== pick(d, a).id)) : m),
  }),
];

/** Where each name stands. */
const standing = (m: Model): Map<string, NodeRef> =>
  new Map(
    [...m].flatMap(([line, runs]) =>
      runs.flatMap((names, run) => names.map((name, node): [string, NodeRef] => [name, { line, run, node }])),
    ),
  );

function expectFollowed(
  before: Drawing,
  after: Drawing,
  change: Parameters<typeof followNodes>[2],
  was: Model,
  is: Model,
) {
  const [from, to] = [standing(was), standing(is)];
  for (const [name, place] of from) {
    const found = followNodes(before, after, change, [place]);
    const wanted = to.get(name);
    expect(found).toEqual(wanted ? [wanted] : []);
  }
}

test('nodes stay the ones they were through any series of changes, undone and redone', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(deeds.length - 1), fc.nat(30), fc.nat(30)), { minLength: 1, maxLength: 12 }),
      (plan) => {
        let now = wanderingDrawing(5, 5, 6);
        let model = named(now);
        const past: { change: ReturnType<typeof changeOf>; before: Drawing; after: Drawing; was: Model; is: Model }[] =
          [];
        plan.forEach(([which, a, b], i) => {
          const deed = deeds[which](a, b);
          const change = changeOf(deed.edit(now, `n${i}`), `c${i}`);
          if (change.steps.length === 0) return;
          const after = applyChange(now, change);
          const is = deed.model(model, now, `n${i}`);
          expectFollowed(now, after, change, model, is);
          past.push({ change, before: now, after, was: model, is });
          [now, model] = [after, is];
        });
        for (const { change, before, after, was, is } of past.toReversed()) {
          expectFollowed(after, before, inverseOf(change, 'u', 'Undo'), is, was);
          expectFollowed(before, after, change, was, is);
        }
      },
    ),
    { numRuns: 70 },
  );
});

test('a node is followed into the line that its own was joined to, and into the one that is cut from it', () => {
  const d = wanderingDrawing(8, 4, 1);
  const open = allLines(d).filter((l) => !l.runs[0].closed);
  const [one, two] = open;
  const joined = changeOf(
    joinEnds(d, { line: one.id, run: 0, atStart: false }, { line: two.id, run: 0, atStart: true }),
    'j',
  );
  const after = applyChange(d, joined);
  const was = two.runs[0].nodes[2];
  const [found] = followNodes(d, after, joined, [{ line: two.id, run: 0, node: 2 }]);
  const lineOf = (x: Drawing, id: string) => allLines(x).find((l) => l.id === id)!;
  expect(found.line).toBe(one.id);
  expect(lineOf(after, one.id).runs[0].nodes[found.node].point).toEqual(was.point);
  const cut = changeOf(cutAtNode(d, { line: one.id, run: 0, node: 2 }, 'fresh'), 'k');
  const parted = applyChange(d, cut);
  expect(followNodes(d, parted, cut, [{ line: one.id, run: 0, node: 3 }])).toEqual([
    { line: 'fresh', run: 0, node: 1 },
  ]);
  expect(followNodes(parted, d, inverseOf(cut, 'u', 'Undo'), [{ line: 'fresh', run: 0, node: 1 }])).toEqual([
    { line: one.id, run: 0, node: 3 },
  ]);
});

test('a width mark stays the one it was when another comes or goes', () => {
  const at = (...list: number[]) => list.map((a) => ({ at: a, left: 1, right: 1 }));
  expect(followMark(at(0, 0.5, 1), at(0, 0.2, 0.5, 1), 1)).toBe(2);
  expect(followMark(at(0, 0.5, 1), at(0, 1), 1)).toBeNull();
  expect(followMark(at(0, 0.5, 1), at(0, 0.6, 1), 1)).toBe(1);
});

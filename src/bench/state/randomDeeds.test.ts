import fc from 'fast-check';
import { nanoid } from 'nanoid';
import { applyChange, type Change, type Drawing, type Line } from '@/core';
import { findItem, findLine, groupsAround, isOpenSheet } from '@/core/drawing/find';
import { allLines, heldGroups, isGroup, linesIn } from '@/core/drawing/items';
import { nodeKey, nodeOfKey } from '@/core/drawing/nodeRef';
import { drawingSchema } from '@/core/drawing/schema';
import { moveToPlace } from '@/core/edits/arrange';
import { addLine, moveLines, removeLines, styleLines } from '@/core/edits/lines';
import { keepInside, releaseInside } from '@/core/edits/keepInside';
import { addSwatches, removeSwatches, swatchesOf } from '@/core/edits/palette';
import { moveNodes, removeNodes } from '@/core/edits/nodes';
import { addSheet, moveSheet, removeSheet, setSheet } from '@/core/edits/sheets';
import { transformLines } from '@/core/edits/transform';
import { turningAbout } from '@/core/geometry/matrix';
import { wanderingDrawing, wanderingLine } from '@/core/test/drawings';
import { remembered } from '@/core/test/remembered';
import { seeded } from '@/core/seeded';
import * as lines from '../commands/lines';
import { cutChosen, joinChosenEnds } from '../commands/nodes';
import { benchWith } from '../test/hand';
import type { Bench } from './store';

type Random = () => number;
const one = <T>(list: readonly T[], random: Random): T | undefined => list[Math.floor(random() * list.length)];
const now = (b: Bench): Drawing => b.getState().drawing;
const chosen = (b: Bench): string[] => [...b.getState().lines];
const sheet = (b: Bench, random: Random): string => one(now(b).sheets, random)?.id ?? 'none';

/** What a person may do to lines, on whatever is chosen. */
const deeds: Record<string, (b: Bench, random: Random, n: number) => void> = {
  choose: (b, random) => {
    const open = now(b).sheets.filter(isOpenSheet);
    const own = linesIn(one(open, random)?.items ?? []);
    b.choose(own.filter(() => random() < 0.5).map((l) => l.id));
  },
  'choose nodes': (b, random) => {
    const own = now(b)
      .sheets.filter(isOpenSheet)
      .flatMap((s) => linesIn(s.items));
    const line = one(own, random);
    if (!line) return;
    const keys = line.runs.flatMap((r, run) =>
      r.nodes.flatMap((_, node) => (random() < 0.4 ? [nodeKey({ line: line.id, run, node })] : [])),
    );
    b.choose([line.id], keys);
  },
  enter: (b, random) => {
    const id = one(chosen(b), random);
    const found = id === undefined ? undefined : findLine(now(b), id);
    if (found)
      b.setState({
        within: groupsAround(found.sheet, id!)
          .slice(0, 1)
          .map((g) => g.id),
      });
  },
  all: lines.chooseAll,
  none: lines.chooseNone,
  others: lines.invertChoice,
  group: lines.group,
  'take apart': lines.ungroup,
  order: (b, random) => lines.order(b, one(['forward', 'back', 'to front', 'to back'] as const, random)!),
  duplicate: lines.duplicate,
  'to a sheet': (b, random) => lines.toSheet(b, sheet(b, random)),
  join: lines.joinChosen,
  cut: cutChosen,
  'join ends': (b, random) => joinChosenEnds(b, random() < 0.5 ? 'straight' : 'merged'),
  remove: (b) => void b.commit(removeLines(now(b), chosen(b))),
  'remove one': (b, random) => void b.commit(removeLines(now(b), [one(allLines(now(b)), random)?.id ?? 'none'])),
  move: (b, random) => void b.commit(moveLines(now(b), chosen(b), { x: 9 * random(), y: -4 })),
  turn: (b) => void b.commit(transformLines(now(b), chosen(b), turningAbout({ x: 9, y: 2 }, 31), true, 'Turn')),
  style: (b, random) => void b.commit(styleLines(now(b), chosen(b), { width: 1 + random() * 5 }, 'Width')),
  'move nodes': (b) => void b.commit(moveNodes(now(b), [...b.getState().nodes].map(nodeOfKey), { x: 1, y: 2 })),
  'remove nodes': (b) => void b.commit(removeNodes(now(b), [...b.getState().nodes].map(nodeOfKey))),
  'to a place': (b, random) => {
    const line = one(allLines(now(b)), random);
    const at = one(now(b).sheets, random);
    if (!line || !at) return;
    const group = one(at.items.filter(isGroup), random);
    const place = group && random() < 0.6 ? { sheet: at.id, group: group.id, index: 0 } : { sheet: at.id, index: 0 };
    b.commit(moveToPlace(now(b), line.id, place));
  },
  draw: (b, random, n) => void b.commit(addLine(now(b), b.getState().sheet, wanderingLine(`d${n}`, 3, random) as Line)),
  hide: (b, random) => void b.commit(setSheet(now(b), sheet(b, random), { visible: random() < 0.7 }, 'Hide')),
  lock: (b, random) => void b.commit(setSheet(now(b), sheet(b, random), { locked: random() < 0.3 }, 'Lock')),
  'new sheet': (b, _, n) => void b.commit(addSheet(now(b), `n${n}`, 'New')),
  'no sheet': (b, random) => void b.commit(removeSheet(now(b), sheet(b, random))),
  'sheet to': (b, random) => void b.commit(moveSheet(now(b), sheet(b, random), 0)),
  'keep inside': (b, random) => {
    const shape = one(allLines(now(b)), random)?.id;
    if (shape !== undefined) b.commit(keepInside(now(b), b.getState().lines, shape, () => nanoid(10)));
  },
  release: (b, random) => {
    const held = one(
      now(b).sheets.flatMap((s) => heldGroups(s.items)),
      random,
    );
    if (held) b.commit(releaseInside(now(b), held.id));
  },
  'draw into': (b, random) => b.setState({ into: random() < 0.5 ? (one(allLines(now(b)), random)?.id ?? null) : null }),
  'draw behind': (b, random) => (random() < 0.5 ? lines.drawBehind(b) : b.setState({ behind: null })),
  swatch: (b, random) =>
    void b.commit(addSwatches(now(b), [{ colour: random() < 0.5 ? '#aa3322' : '#2233aa' }], () => nanoid(10))),
  'no swatch': (b, random) => {
    const own = one(swatchesOf(now(b)), random);
    if (own) b.commit(removeSwatches(now(b), new Set([own.id])));
  },
  'paint with it': (b, random) => {
    const own = one(swatchesOf(now(b)), random);
    if (own) b.commit(styleLines(now(b), chosen(b), { fill: { swatch: own.id } }, 'Fill'));
  },
  undo: (b) => b.undo(),
  redo: (b) => b.redo(),
};

function expectSound(b: Bench): void {
  const { drawing, lines: ids, nodes } = b.getState();
  for (const id of ids) expect(isOpenSheet(findLine(drawing, id)!.sheet)).toBe(true);
  for (const { line, run, node } of [...nodes].map(nodeOfKey)) {
    expect(ids.has(line)).toBe(true);
    expect(findLine(drawing, line)!.line.runs[run].nodes[node]).toBeDefined();
  }
  expect(remembered(drawing)).toEqual(remembered(structuredClone(drawing)));
  expect(drawingSchema.safeParse(drawing).error).toBeUndefined();
}

test('whatever is done to lines, in whatever order, what is chosen is there, and all can be taken back', () => {
  const plan = fc.array(fc.constantFrom(...Object.keys(deeds)), { minLength: 5, maxLength: 40 });
  fc.assert(
    fc.property(plan, fc.nat(10_000), (names, seed) => {
      const random = seeded(seed);
      const first = wanderingDrawing(14, 3, 2);
      const bench = benchWith(first);
      const changes: Change[] = [];
      bench.onChange(({ change }) => changes.push(change));
      names.forEach((name, n) => {
        deeds[name](bench, random, n);
        expectSound(bench);
      });
      // What was sent makes the same drawing.
      const sent = changes.reduce((d, c) => applyChange(d, JSON.parse(JSON.stringify(c)) as Change), first);
      expect(JSON.stringify(sent)).toBe(JSON.stringify(now(bench)));
      while (bench.getState().undoable.length > 0) bench.undo();
      expect(JSON.stringify(now(bench))).toBe(JSON.stringify(first));
      expect(findItem(now(bench), 'none')).toBeUndefined();
    }),
    { numRuns: 60 },
  );
});

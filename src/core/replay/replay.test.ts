import fc from 'fast-check';
import { applyChange, inverseOf, readSvg } from '../index';
import { lineLength } from '../drawing/run';
import type { Drawing, Line } from '../drawing/schema';
import { distance } from '../geometry/point';
import { leavesOf, paintedId, sceneOf } from '../scene/scene';
import { wanderingDrawing } from '../test/drawings';
import { svgFeatures } from '../test/svg/features';
import { drawnSoFar, penAt } from './cut';
import { inOrder } from './inOrder';
import { appearing, drawnLines, endOf, penWays, setOrder, startOf } from './order';
import { framesOf, firstMotion } from './motion';
import { momentsOf, penOver, sceneAt } from './sceneAt';
import { shortestTravel } from './shortestTravel';
import { timelineOf } from './timing';

const badge = readSvg(svgFeatures.find(([n]) => n === 'a badge')![1]).drawing;
const d = wanderingDrawing(24, 3, 5);
const ids = (x: Drawing): string[] => drawnLines(x).map((l) => l.line.id);
const after = (x: Drawing, e: ReturnType<typeof setOrder>): Drawing => applyChange(x, { id: 'c', ...e });

describe('the order of lines', () => {
  test('as they lie; as it is set; a line that comes later is drawn after what lies below it', () => {
    const all = ids(d);
    expect(new Set(drawnLines(d).map((x) => x.sheet)).size).toBe(4);
    const turned = setOrder(d, all.toReversed(), 'Order');
    const set = after(d, turned);
    expect(ids(set)).toEqual(all.toReversed());
    expect(applyChange(set, inverseOf({ id: 'c', ...turned }, 'u', 'Undo'))).toEqual(d);
    expect(setOrder(set, all.toReversed(), 'Order').steps).toEqual([]);
    const some = after(d, setOrder(d, [all[5], all[0], 'gone'], 'Order'));
    expect(ids(some)).toHaveLength(all.length);
    expect(ids(some).filter((id) => id === all[5] || id === all[0])).toEqual([all[5], all[0]]);
    expect(ids(some).indexOf(all[1])).toBeGreaterThan(ids(some).indexOf(all[0]));
  });

  test('colours come when the lines of their part are there', () => {
    const list = appearing(badge);
    const lastLine = list.findLastIndex((x) => x.kind === 'line');
    const firstColour = list.findIndex((x) => x.kind === 'colour');
    expect(firstColour).toBeGreaterThan(0);
    for (const sheet of badge.sheets) {
      const own = list.flatMap((x, i) => (x.sheet === sheet.id ? [{ ...x, i }] : []));
      const ownLast = own.findLast((x) => x.kind === 'line')?.i ?? -1;
      for (const x of own) if (x.kind === 'colour') expect(x.i).toBeGreaterThan(ownLast);
    }
    expect(lastLine).toBeLessThan(list.length);
  });

  test('shortest travel: the same lines, each part in its places, never a longer way', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 1e6 }), (count, seed) => {
        const lines = drawnLines(wanderingDrawing(count, 2, seed));
        const found = shortestTravel(lines);
        expect(found.map((x) => x.line.id).sort()).toEqual(lines.map((x) => x.line.id).sort());
        expect(found.map((x) => x.sheet)).toEqual(lines.map((x) => x.sheet));
        expect(penWays(found).lifted).toBeLessThanOrEqual(penWays(lines).lifted + 1e-9);
      }),
      { numRuns: 60 },
    );
    const many = drawnLines(wanderingDrawing(200, 2, 3));
    expect(penWays(shortestTravel(many)).lifted).toBeLessThan(0.4 * penWays(many).lifted);
  });

  test('an SVG in drawing order has everything, once, in that order', () => {
    const set = after(d, setOrder(d, ids(d).toReversed(), 'Order'));
    expect(leavesOf(inOrder(sceneOf(set), set)).map((l) => paintedId(l.node))).toEqual(ids(d).toReversed());
    const whole = leavesOf(sceneOf(badge)).map((l) => paintedId(l.node));
    expect(
      leavesOf(inOrder(sceneOf(badge), badge))
        .map((l) => paintedId(l.node))
        .sort(),
    ).toEqual(whole.sort());
  });
});

describe('a timeline', () => {
  test('one line after the other at the speed, with a rest between parts; or as long as it is wanted', () => {
    const { moments, total } = timelineOf(d, { speed: 200, pause: 0.5 });
    for (const [i, m] of moments.entries()) {
      expect(m.end - m.start).toBeCloseTo(Math.max(0.02, lineLength(m.line!) / 200), 9);
      if (i === 0) continue;
      const before = moments[i - 1];
      const lifted = distance(endOf(before.line!), startOf(m.line!)) / 800;
      expect(m.start - before.end).toBeCloseTo(lifted + (before.sheet === m.sheet ? 0 : 0.5), 9);
    }
    expect(total).toBe(moments.at(-1)!.end);
    for (const length of [2, 30]) {
      const wanted = timelineOf(d, { length, pause: 0.3 });
      expect(wanted.total).toBe(length);
      expect(wanted.moments.at(-1)!.end).toBeCloseTo(length, 6);
      const turn = wanted.moments.findIndex((m, i) => i > 0 && wanted.moments[i - 1].sheet !== m.sheet);
      expect(wanted.moments[turn].start - wanted.moments[turn - 1].end).toBeGreaterThanOrEqual(
        Math.min(0.3, length / 8) - 1e-9,
      );
    }
    expect(() => timelineOf(d, { speed: 0, pause: 0 })).toThrow(RangeError);
    expect(timelineOf({ ...d, sheets: [] }, { length: 3, pause: 1 })).toEqual({ moments: [], total: 0 });
  });

  test('brought to a length, colours fade in as they do, and drawing takes what is left', () => {
    const fading = (length: number): number[] =>
      timelineOf(badge, { length, pause: 0 }).moments.flatMap((m) => (m.kind === 'colour' ? [m.end - m.start] : []));
    for (const takes of fading(20)) expect(takes).toBeCloseTo(0.35, 9);
    for (const takes of fading(1)) expect(takes).toBeLessThan(0.35);
    const bare = {
      ...badge,
      sheets: badge.sheets.map((s) => ({ ...s, items: s.items.filter((i) => i.kind === 'flat') })),
    };
    expect(timelineOf(bare, { length: 3, pause: 0 }).total).toBe(appearing(bare).length > 0 ? 3 : 0);
  });

  test('ten thousand lines that came since the order was set find their places', () => {
    const many = wanderingDrawing(10_000, 1, 3);
    const [first, second] = ids(many);
    const placed = ids({ ...many, order: [second, first] });
    expect(placed).toHaveLength(10_000);
    expect(placed.indexOf(second)).toBeLessThan(placed.indexOf(first));
    expect(new Set(placed).size).toBe(10_000);
  });

  test('nothing at its beginning, all at its end, ever more between', () => {
    for (const x of [d, badge]) {
      const timeline = timelineOf(x, { length: 8, pause: 0.2 });
      const moments = momentsOf(timeline);
      expect(leavesOf(sceneAt(x, moments, 0))).toEqual([]);
      expect(sceneAt(x, moments, 8.0001)).toEqual(sceneOf(x));
      const counts = [1, 3, 5, 7].map((t) => leavesOf(sceneAt(x, moments, t)).length);
      expect([...counts].sort((a, b) => a - b)).toEqual(counts);
    }
  });

  test('the pen is where the line ends that is being drawn, and goes on to the next', () => {
    const timeline = timelineOf(d, { speed: 100, pause: 0.4 });
    for (let t = 0.01; t < timeline.total; t += 0.37) {
      const pen = penOver(timeline, t)!;
      const m = timeline.moments.find((x) => x.start <= t && t <= x.end);
      expect(pen.isDown).toBe(!!m);
      if (m) {
        const drawn = drawnSoFar(m.line!, (t - m.start) / (m.end - m.start));
        expect(distance(endOfRuns(drawn!), pen.point)).toBeLessThan(0.02);
      }
    }
    expect(penOver(timeline, timeline.total + 1)).toBeNull();
  });

  test('more pictures than can be made are refused with words', () => {
    expect(framesOf(d, { ...firstMotion, length: 2, fps: 10 }).times).toHaveLength(20);
    expect(() => framesOf(d, { ...firstMotion, length: 100, fps: 60 })).toThrow('6000 pictures');
  });
});

const endOfRuns = ({ runs }: Line) => runs.at(-1)!.nodes.at(-1)!.point;

test('a line drawn so far is so much of it, with its widths', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1e6 }), fc.double({ min: 0.02, max: 0.98, noNaN: true }), (seed, share) => {
      const [{ line }] = drawnLines(wanderingDrawing(1, 4, seed));
      const two: Line = { ...line, runs: [...line.runs, ...line.runs] };
      for (const x of [line, two]) {
        const drawn = drawnSoFar(x, share)!;
        expect(lineLength(drawn) / lineLength(x)).toBeCloseTo(share, 3);
        expect(startOf(drawn)).toEqual(startOf(x));
      }
      expect(distance(penAt(line, 0), startOf(line))).toBeLessThan(1e-6);
      expect(distance(penAt(line, 1), endOf(line))).toBeLessThan(1e-3);
    }),
    { numRuns: 80 },
  );
  const [{ line }] = drawnLines(d);
  const wide = {
    ...line,
    runs: [{ ...line.runs[0], closed: false }],
    marks: [
      { at: 0, left: 1, right: 2 },
      { at: 1, left: 5, right: 6 },
    ],
  };
  const half = drawnSoFar(wide, 0.5)!;
  expect(half.marks!.at(-1)!.at).toBe(1);
  expect(half.marks!.at(-1)!.left).toBeCloseTo(3, 1);
  expect(drawnSoFar(wide, 0)).toBeNull();
  expect(drawnSoFar(wide, 1)!.runs).toBe(wide.runs);
});

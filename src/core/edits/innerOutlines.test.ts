import { applyChange, emptyDrawing, firstStyle, inverseOf, plainPage, type Drawing, type Flat, type Line } from '..';
import { changeOf } from '../change/changeOf';
import { drawingOnGrid } from '../change/onGrid';
import type { Edit } from '../change/edit';
import { runFromCubics } from '../drawing/fromCubics';
import { flatsIn, isLine } from '../drawing/items';
import { outlineHolds, polygonOf } from '../drawing/outline';
import { cubicsOf } from '../drawing/run';
import type { CubicRun } from '../geometry/along';
import { cubicArea } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import { windingAround } from '../geometry/polygon';
import { bodyOf } from '../ink/body';
import { grownStroke } from '../ink/grown';
import { seeded } from '../seeded';
import { circle, closed, open } from '../test/arrangements';
import { pour } from '../test/pour';
import { withFollowing } from './following';
import { flatsIntoLines } from './flats';
import { keepWithinBodies } from './innerOutlines';
import { styleLines } from './lines';
import { moveNodes } from './nodes';

const p = (x: number, y: number): Point => ({ x, y });
let ids = 0;
const freshId = (): string => `f${++ids}`;
const drawingOf = (runs: readonly CubicRun[], width: number): Drawing => {
  const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
  const d = emptyDrawing(page, { id: 's', name: 'Lines', tag: '#000000' });
  const items = runs.map(({ cubics, closed: shut }, i): Line => ({
    id: `l${i}`,
    runs: [runFromCubics(cubics, shut)],
    style: { ...firstStyle, width, join: 'miter' },
  }));
  return drawingOnGrid({ ...d, sheets: [{ ...d.sheets[0], items }] });
};
const poured = (d: Drawing, at: Point): Drawing =>
  applyChange(d, changeOf(pour(d, at, { fill: '#c33d2b', gap: 0, freshId }, true)!.edit, freshId()));
const after = (d: Drawing, e: Edit): Drawing => {
  const change = changeOf(withFollowing(d, e, freshId), freshId());
  const next = applyChange(d, change);
  expect(JSON.stringify(applyChange(next, inverseOf(change, 'u', 'Undo')))).toBe(JSON.stringify(d));
  return next;
};
const flat = (d: Drawing): Flat => d.sheets.flatMap((s) => flatsIn(s.items))[0];
const sizeOf = (runs: Flat['runs']): number =>
  Math.abs(runs.flatMap(cubicsOf).reduce((sum, c) => sum + cubicArea(c), 0));
const frame = closed(p(20, 20), p(220, 20), p(220, 120), p(20, 120));
const wall = open(p(120, 10), p(120, 130));

test('a flat goes to the inner edges of its lines, a hair beneath them; again to their middles when asked', () => {
  const d = poured(drawingOf([frame, wall], 8), p(60, 60));
  // Half of 8, but for 0.4, on each side.
  expect(sizeOf(flat(d).inner!)).toBeCloseTo((100 - 2 * 3.6) * (100 - 2 * 3.6), 0);
  expect(sizeOf(flat(d).runs)).toBeCloseTo(10_000, 6);
  const middles = after(d, keepWithinBodies(d, [flat(d).id], false));
  expect(flat(middles).inner).toBeUndefined();
  const again = after(middles, keepWithinBodies(middles, [flat(d).id], true));
  expect(flat(again).inner).toEqual(flat(d).inner);
});

test('made a line it is as it was seen; dashes have no gaps for it', () => {
  const d = poured(drawingOf([frame, wall], 8), p(60, 60));
  const made = after(d, flatsIntoLines(d, [flat(d).id], () => 'made').edit);
  expect(made.sheets[0].items.find((i) => i.id === 'made')).toMatchObject({ runs: flat(d).inner! });
  const dash = { lengths: [12, 9], offset: 0 };
  const dashed = after(d, styleLines(d, new Set(['l0', 'l1']), { dash }, 'Dashes'));
  expect(sizeOf(flat(dashed).inner!)).toBeCloseTo(sizeOf(flat(d).inner!), 0);
});

test('it follows its lines, and how wide they are; where they cover all of it a point is left', () => {
  const d = poured(drawingOf([frame, wall], 8), p(60, 60));
  const wider = after(
    d,
    moveNodes(
      d,
      [0, 3].map((node) => ({ line: 'l0', run: 0, node })),
      p(-10, 0),
    ),
  );
  expect(sizeOf(flat(wider).inner!)).toBeCloseTo((110 - 7.2) * (100 - 7.2), 0);
  const thin = after(d, styleLines(d, new Set(['l0', 'l1']), { width: 2 }, 'Width'));
  expect(sizeOf(flat(thin).inner!)).toBeCloseTo((100 - 1.4) * (100 - 1.4), 0);
  const thick = after(d, styleLines(d, new Set(['l1']), { width: 220 }, 'Width'));
  expect(sizeOf(flat(thick).inner!)).toBe(0);
  expect(sizeOf(flat(thick).runs)).toBeCloseTo(10_000, 6);
  const back = after(thick, styleLines(thick, new Set(['l1']), { width: 8 }, 'Width'));
  expect(sizeOf(flat(back).inner!)).toBeCloseTo(sizeOf(flat(d).inner!), 6);
});

test('of any lines: what shows of the area is painted, and nothing well beneath a body', () => {
  let [shows, hidden] = [0, 0];
  for (let seed = 1; seed <= 5; seed++) {
    const random = seeded(seed);
    const at = (): Point => p(40 + 320 * random(), 40 + 220 * random());
    const curve = (): CubicRun => ({ closed: false, cubics: [[at(), at(), at(), at()]] });
    const d = poured(drawingOf([circle(200, 150, 120), curve(), curve(), curve()], 4 + 10 * random()), p(200, 150));
    const { runs, inner } = flat(d);
    const lines = d.sheets.flatMap((s) => s.items.filter(isLine));
    const coveredBy = (k: number): ((q: Point) => boolean) => {
      const bodies = lines.map((l) => bodyOf({ ...l, ...grownStroke(l, k) }));
      const polygons = bodies.map((b) => b.map((o) => polygonOf(runFromCubics(o, true))));
      return (q) => polygons.some((body) => body.reduce((n, o) => n + windingAround(o, q), 0) !== 0);
    };
    const [isCovered, isDeepBeneath] = [coveredBy(1), coveredBy(0.6)];
    for (let k = 0; k < 600; k++) {
      const q = p(80 + 240 * random(), 30 + 240 * random());
      const isWithin = outlineHolds({ runs: inner! }, q);
      if (isWithin) expect(outlineHolds({ runs }, q)).toBe(true);
      if (!outlineHolds({ runs }, q)) continue;
      const [isShown, isHidden] = [!isCovered(q), isDeepBeneath(q)];
      shows += Number(isShown);
      hidden += Number(isHidden);
      if (isShown || isHidden) expect([seed, q, isWithin]).toEqual([seed, q, isShown]);
    }
  }
  expect([shows > 200, hidden > 40]).toEqual([true, true]);
});

import { linesOf } from '../drawing/items';
import { applyChange, inverseOf, writeSvg, type Drawing } from '../index';
import { findLine, groupsAround } from '../drawing/find';
import { skeletonBox } from '../drawing/run';
import { scalingAbout, skewingAbout, times, turningAbout, type Matrix } from '../geometry/matrix';
import type { Box } from '../geometry/point';
import { groupOf, wanderingDrawing } from '../test/drawings';
import type { Edit } from '../change/edit';
import { alignLines, boxOfLines, copiesOf, spreadLines, transformLines, type Side } from './transform';

const d = wanderingDrawing(8, 3, 11);
const ids = ['l0', 'l1', 'l2', 'l5'];
const middle = { x: 400, y: 300 };

function after(edit: Edit, from: Drawing = d): Drawing {
  const change = { id: 'c', ...edit };
  const result = applyChange(from, change);
  expect(applyChange(result, inverseOf(change, 'u', 'Undo'))).toEqual(from);
  return result;
}
const lineIn = (of: Drawing, id: string) => findLine(of, id)!.line;
const boxes = (of: Drawing): Box[] => ids.map((id) => skeletonBox(lineIn(of, id)));

describe('transforming lines', () => {
  it.each<[string, Matrix]>([
    ['turned', turningAbout(middle, 30)],
    ['scaled and slanted', times(skewingAbout(middle, 20, 0), scalingAbout(middle, 2, -0.5))],
  ])('every place of a line is %s with it, and nothing else is', (_, m) => {
    const turned = after(transformLines(d, ids, m, false, 'Turn'));
    for (const id of ids) {
      const [a, b] = [lineIn(d, id), lineIn(turned, id)];
      a.runs[0].nodes.forEach((n, i) => {
        const out = b.runs[0].nodes[i];
        const to = (x: number, y: number) => ({ x: m.a * x + m.c * y + m.e, y: m.b * x + m.d * y + m.f });
        const bead = to(n.point.x + n.out!.x, n.point.y + n.out!.y);
        expect(out.point.x).toBeCloseTo(to(n.point.x, n.point.y).x, 6);
        expect(out.point.y + out.out!.y).toBeCloseTo(bead.y, 6);
      });
      expect(b.style).toEqual(a.style);
    }
    expect(lineIn(turned, 'l3')).toEqual(lineIn(d, 'l3'));
  });

  it('turning all the way round comes back; widths grow only if they are to', () => {
    const round = [90, 90, 180].reduce(
      (x, by) => after(transformLines(x, ids, turningAbout(middle, by), true, 'Turn'), x),
      d,
    );
    expect(writeSvg(round)).toBe(writeSvg(d));
    const wide = after(transformLines(d, ids, scalingAbout(middle, 3, 3), true, 'Scale'));
    expect(lineIn(wide, 'l1').style.width).toBeCloseTo(3 * lineIn(d, 'l1').style.width, 9);
  });

  it.each<[Side, keyof Box]>([
    ['left', 'minX'],
    ['right', 'maxX'],
    ['top', 'minY'],
    ['bottom', 'maxY'],
  ])('align to the %s side of all of them', (side, edge) => {
    const goal = boxOfLines(d, ids)![edge];
    for (const b of boxes(after(alignLines(d, ids, side)))) expect(b[edge]).toBeCloseTo(goal, 6);
  });

  it('spreads gaps evenly; the outermost stay', () => {
    const spread = boxes(after(spreadLines(d, ids, 'x'))).sort((a, b) => a.minX + a.maxX - b.minX - b.maxX);
    const gaps = spread.slice(1).map((b, i) => b.minX - spread[i].maxX);
    for (const g of gaps) expect(g).toBeCloseTo(gaps[0], 5);
    const before = boxes(d).sort((a, b) => a.minX + a.maxX - b.minX - b.maxX);
    expect([spread[0].minX, spread.at(-1)!.maxX]).toEqual([
      expect.closeTo(before[0].minX, 6),
      expect.closeTo(before.at(-1)!.maxX, 6),
    ]);
    expect(spreadLines(d, ids.slice(0, 2), 'x').steps).toEqual([]);
  });

  it('a group is aligned and spread as one, unless it is entered', () => {
    const grouped: Drawing = {
      ...d,
      sheets: d.sheets.map((s) => ({
        ...s,
        items: s.id === 's0' ? [groupOf('g', ...linesOf(s))] : s.items,
      })),
    };
    const all = ['l0', 'l4', 'l1', 'l2'];
    const apart = (of: Drawing): number =>
      lineIn(of, 'l0').runs[0].nodes[0].point.x - lineIn(of, 'l4').runs[0].nodes[0].point.x;
    for (const edit of [alignLines(grouped, all, 'left'), spreadLines(grouped, all, 'x')]) {
      expect(edit.steps.length).toBeGreaterThan(0);
      expect(apart(after(edit, grouped))).toBeCloseTo(apart(grouped), 6);
    }
    const left = after(alignLines(grouped, all, 'left'), grouped);
    expect(boxOfLines(left, ['l0', 'l4'])!.minX).toBeCloseTo(boxOfLines(grouped, all)!.minX, 6);
    const within = after(alignLines(grouped, ['l0', 'l4'], 'left', ['g']), grouped);
    expect(skeletonBox(lineIn(within, 'l0')).minX).toBeCloseTo(skeletonBox(lineIn(within, 'l4')).minX, 6);
  });

  it('copies lie on their own sheets, with ids and groups of their own', () => {
    let n = 0;
    const grouped: Drawing = {
      ...d,
      sheets: d.sheets.map((s) => ({ ...s, items: [groupOf(`g${s.id}`, ...linesOf(s))] })),
    };
    const { edit, ids: copies } = copiesOf(grouped, ['l0', 'l4'], { x: 5, y: 5 }, () => `new${n++}`);
    const result = after(edit, grouped);
    expect(linesOf(result.sheets[0]).map((l) => l.id)).toEqual(['l0', 'l4', ...copies]);
    const [a, b] = copies.map((id) => groupsAround(result.sheets[0], id).map((g) => g.id));
    expect(a).toEqual(b);
    expect(a).not.toEqual(['gs0']);
    expect(lineIn(result, copies[0]).runs[0].nodes[0].point.x).toBeCloseTo(
      lineIn(d, 'l0').runs[0].nodes[0].point.x + 5,
      9,
    );
  });
});

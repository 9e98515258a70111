import { linesOf } from '@/core/drawing/items';
import { applyChange, type Drawing } from '@/core';
import { moveLines, removeLines, styleLines } from '@/core/edits/lines';
import { setSheet } from '@/core/edits/sheets';
import { isOpenSheet } from '@/core/drawing/find';
import { cubicsOf, nearestOnLine } from '@/core/drawing/run';
import { samples } from '@/core/test/bruteForce';
import { wanderingDrawing } from '@/core/test/drawings';
import { seeded } from '@/core/seeded';
import { differingLines } from './liveLines';
import { boxRegion } from '@/core/drawing/region';
import { Picking } from './picking';

const drawing = wanderingDrawing(150, 5, 11);
const open = (d: Drawing) => d.sheets.filter(isOpenSheet).flatMap((s) => linesOf(s));

/** The nearest line by trying them all. */
const tried = (d: Drawing, p: { x: number; y: number }) =>
  Math.min(...open(d).map((l) => nearestOnLine(l, p)!.distance));

test('the nearest line is the one that trying them all finds, also after edits', () => {
  const random = seeded(6);
  const picking = new Picking();
  let now = drawing;
  for (let round = 0; round < 5; round++) {
    for (let i = 0; i < 30; i++) {
      const p = { x: random() * 1000, y: random() * 700 };
      const truth = tried(now, p);
      const hit = picking.nearest(now, p, 40);
      if (truth > 40) expect(hit).toBeNull();
      else expect(hit!.distance).toBeCloseTo(truth, 6);
    }
    const [a, b, c] = [0, 1, 2].map(() => open(now)[Math.floor(random() * open(now).length)].id);
    now = applyChange(now, { id: 'm', ...moveLines(now, [a], { x: 300 * (random() - 0.5), y: 50 }) });
    now = applyChange(now, { id: 'r', ...removeLines(now, [b]) });
    now = applyChange(now, { id: 's', ...styleLines(now, [c], { width: 30 }, 'Set width') });
    now = applyChange(now, { id: 'v', ...setSheet(now, 's2', { visible: round % 2 === 0 }, 'Hide') });
  }
});

test('a box touches the lines that have a point in it', () => {
  const random = seeded(8);
  const picking = new Picking();
  for (let i = 0; i < 30; i++) {
    const [x, y] = [random() * 900, random() * 600];
    const box = { minX: x, minY: y, maxX: x + random() * 120, maxY: y + random() * 120 };
    const dense = (grow: number) =>
      open(drawing)
        .filter((l) =>
          l.runs.some((r) =>
            cubicsOf(r).some((c) =>
              samples(c, 0, 1, 400).some(
                (p) =>
                  p.x >= box.minX - grow && p.x <= box.maxX + grow && p.y >= box.minY - grow && p.y <= box.maxY + grow,
              ),
            ),
          ),
        )
        .map((l) => l.id);
    const found = picking.inRegion(drawing, boxRegion(box));
    for (const id of dense(-0.3)) expect(found).toContain(id);
    const near = dense(0.3);
    for (const id of found) expect(near).toContain(id);
  }
});

test('a wide stroke can be taken hold of anywhere in its body', () => {
  const one = {
    ...drawing,
    sheets: [
      {
        ...drawing.sheets[0],
        items: [{ ...linesOf(drawing.sheets[0])[0], style: { ...linesOf(drawing.sheets[0])[0].style, width: 40 } }],
      },
    ],
  };
  const [node] = one.sheets[0].items[0].runs[0].nodes;
  const beside = { x: node.point.x - node.out!.y * 1.2, y: node.point.y + node.out!.x * 1.2 };
  const off = nearestOnLine(one.sheets[0].items[0], beside)!.distance;
  const picking = new Picking();
  expect(off).toBeGreaterThan(3);
  expect(picking.under(one, beside, 2)?.line.id).toBe(off < 20 ? 'l0' : undefined);
  expect(picking.under(drawing, { x: -500, y: -500 }, 2)).toBeNull();
});

test('what differs between two states of a drawing is found, and nothing else', () => {
  const after = applyChange(drawing, { id: 'm', ...moveLines(drawing, ['l3', 'l7'], { x: 1, y: 1 }) });
  expect(differingLines(drawing, after).ids).toEqual(['l3', 'l7']);
  expect(differingLines(drawing, drawing).ids).toEqual([]);
  const hidden = applyChange(after, { id: 'h', ...setSheet(after, 's3', { visible: false }, 'Hide') });
  expect(differingLines(drawing, hidden).ids).toEqual([]);
});

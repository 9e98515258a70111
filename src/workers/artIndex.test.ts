import { linesOf, seenLines } from '@/core/drawing/items';
import { applyChange, type Box, type Drawing, type Line } from '@/core';
import { addLine, moveLines, removeLines, styleLines } from '@/core/edits/lines';
import { moveSheet, setSheet } from '@/core/edits/sheets';
import { boxesMeet } from '@/core/geometry/box';
import { lineBox } from '@/core/drawing/run';
import { wanderingDrawing } from '@/core/test/drawings';
import { seeded } from '@/core/seeded';
import { ArtIndex, type Painted } from './artIndex';

const lineIn = ({ node }: Painted): Line => (node as Extract<Painted['node'], { kind: 'line' }>).line;
const visible = (d: Drawing) => seenLines(d);

test('lines come in painting order, and every place that looks different is named, through any series of changes', () => {
  const random = seeded(14);
  const art = new ArtIndex();
  let now = wanderingDrawing(80, 4, 9);
  art.follow(now);
  const pick = () => visible(now)[Math.floor(random() * visible(now).length)].id;
  const edits = [
    () => moveLines(now, [pick()], { x: 80 * (random() - 0.5), y: 40 }),
    () => removeLines(now, [pick()]),
    () => styleLines(now, [pick(), pick()], { width: 3 + random() * 20 }, 'Set width'),
    () => moveSheet(now, now.sheets[Math.floor(random() * 4)].id, Math.floor(random() * 4)),
    () => setSheet(now, 's2', { visible: random() < 0.5 }, 'Show'),
    () => addLine(now, 's1', { ...visible(now)[0], id: `new${Math.floor(random() * 1e9)}` }),
  ];
  const met: Record<string, number> = { true: 0, false: 0 };
  for (let i = 0; i < 120; i++) {
    const before = now;
    now = applyChange(now, { id: `c${i}`, ...edits[i % edits.length]() });
    const { changed, fresh } = art.follow(now);
    const place: Box = { minX: random() * 900, minY: random() * 600, maxX: 0, maxY: 0 };
    [place.maxX, place.maxY] = [place.minX + 150, place.minY + 150];
    const at = (d: Drawing) => visible(d).filter((l) => boxesMeet(lineBox(l), place));
    const found = art
      .within(place)
      .map(lineIn)
      .filter((l) => boxesMeet(lineBox(l), place));
    expect(found).toEqual(at(now));
    const looksOther = at(before).length !== at(now).length || at(before).some((l, k) => l !== at(now)[k]);
    if (looksOther) expect([...changed, ...fresh].some((box) => boxesMeet(box, place))).toBe(true);
    const known = new Set(visible(before).map((l) => l.id));
    expect(fresh.map((p) => lineIn(p).id)).toEqual(visible(now).flatMap(({ id }) => (known.has(id) ? [] : [id])));
    for (const box of [place, ...fresh.slice(0, 3)]) {
      const here = art.within(box);
      const some = fresh.filter((p) => here.includes(p));
      const others = here.filter((p) => !some.includes(p));
      const isOnTop = some.every((p) => others.every((o) => o.order < p.order));
      expect(art.liesOnTop(some, box)).toBe(isOnTop);
      met[String(isOnTop)] += Number(some.length > 0);
    }
  }
  expect(Math.min(met.true, met.false)).toBeGreaterThan(3);
});

test('one sheet alone: what comes and goes is named, and a new tag colour is news everywhere on its sheet', () => {
  const art = new ArtIndex();
  const drawing = wanderingDrawing(40, 3, 2);
  const all: Box = { minX: -1e4, minY: -1e4, maxX: 1e4, maxY: 1e4 };
  art.follow(drawing);
  const { changed } = art.follow(drawing, 's1');
  expect(art.within(all).map(lineIn)).toEqual(linesOf(drawing.sheets[1]));
  expect(changed).toHaveLength(30);
  const tagged = applyChange(drawing, { id: 'c', ...setSheet(drawing, 's1', { tag: '#123456' }, 'Tag') });
  const news = art.follow(tagged, 's1').changed as Painted[];
  expect(new Set(news.map((p) => lineIn(p).id))).toEqual(new Set(linesOf(tagged.sheets[1]).map((l) => l.id)));
  expect(new Set(art.within(all).map(({ node }) => node.kind === 'line' && node.tag))).toEqual(new Set(['#123456']));
  art.follow(tagged);
  expect(art.within(all)).toHaveLength(40);
});

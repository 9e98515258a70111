import { cubicArea } from '../geometry/cubic';
import { cubicsOf } from '../drawing/run';
import { firstStyle, plainPage } from '../drawing/schema';
import { laidReference } from '../test/laidReference';
import { photos } from '../test/photo';
import { distanceToCurves, walk } from '../test/strokes';
import { pullShapes } from './pullShapes';
import { byColour, linesFromBorders, linesFromShapes } from './pulledShapes';

const page = plainPage({ width: 260, height: 200, unit: 'px', dpi: 96, ground: null });
const { image, outlines } = photos()[1];
// Half a unit a pixel.
const reference = laidReference(page, image.width, image.height);
const shapes = pullShapes(image, { colours: 4, smallest: 120, tolerance: 1 });
const id = () => {
  let n = 0;
  return () => `l${n++}`;
};

test('shapes lie on the page as they do in the picture: filled, without strokes, apart by their colours', () => {
  const lines = linesFromShapes(shapes, reference, image, firstStyle, id());
  expect(lines).toHaveLength(shapes.length);
  lines.forEach((l, i) => {
    expect(l.style).toMatchObject({ width: 0, fillRule: 'evenodd' });
    const size = l.runs.flatMap(cubicsOf).reduce((sum, c) => sum + cubicArea(c), 0);
    expect(Math.abs(Math.abs(size) - shapes[i].area / 4)).toBeLessThan(0.5);
  });
  const sorts = byColour(lines);
  expect(sorts.flatMap((s) => s.lines)).toHaveLength(lines.length);
  expect(new Set(sorts.map((s) => s.name)).size).toBe(sorts.length);
  for (const { lines: own } of sorts) expect(new Set(own.map((l) => l.style.fill)).size).toBe(1);
});

test('outlines alone: each border once, none along the rim of the picture', () => {
  const lines = linesFromBorders(shapes, reference, image, firstStyle, id());
  expect(lines.every((l) => l.style.fill === null && l.style.width === firstStyle.width)).toBe(true);
  const curves = lines.flatMap((l) => l.runs.flatMap(cubicsOf));
  const half = outlines.map((o) => o.map((c) => c.map((p) => ({ x: p.x / 2, y: p.y / 2 })) as typeof c));
  for (const truth of half) for (const p of walk(truth, 4)) expect(distanceToCurves(curves, p)).toBeLessThan(1.5);
  const length = (list: typeof curves): number => walk(list, 1).length;
  expect(lines.reduce((sum, l) => sum + length(l.runs.flatMap(cubicsOf)), 0)).toBeLessThan(
    1.05 * half.reduce((sum, o) => sum + length(o), 0),
  );
});

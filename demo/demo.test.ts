import { linesOf } from '@/core/drawing/items';
import sharp from 'sharp';
import { cubicAt, cubicLength, drawingSchema, nearestOnCubic } from '../src/core';
import { distance } from '../src/core/geometry/point';
import { canLines } from '../src/server/simulated/curves/can';
import { pearLines, pearPage } from '../src/server/simulated/curves/pear';
import { snailLines, snailPage } from '../src/server/simulated/curves/snail';
import { partlyTracedPear } from './drawings';
import { pearScan } from '../src/server/simulated/pictures/pearScan';

test.each([
  ['pear', pearLines, pearPage],
  ['snail', snailLines, snailPage],
  ['can', canLines, { width: 1600, height: 1200 }],
] as const)('the curves of the %s follow each other and lie on their page', (_, lines, page) => {
  for (const { cubics, closed } of lines) {
    cubics.slice(1).forEach((c, i) => expect(c[0]).toEqual(cubics[i][3]));
    if (closed) expect(distance(cubics[0][0], cubics.at(-1)![3])).toBeLessThan(1);
    for (const p of cubics.flat()) expect(p.x >= 0 && p.y >= 0 && p.x <= page.width && p.y <= page.height).toBe(true);
    expect(cubics.every((c) => cubicLength(c) > 1)).toBe(true);
  }
});

test('the pear scan is dark along its true lines and light away from them, and the same each time', async () => {
  const size = { width: 370, height: 525 };
  const scale = size.width / pearPage.width;
  const [first, second] = await Promise.all([pearScan(size), pearScan(size)]);
  expect(first.equals(second)).toBe(true);
  expect(await sharp(first).metadata()).toMatchObject({ ...size, format: 'png', density: 300 });
  const { data, info } = await sharp(first).extractChannel(0).raw().toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => data[Math.floor(y) * info.width + Math.floor(x)];
  const along = pearLines
    .filter((l) => l.width >= 8)
    .flatMap((l) => l.cubics.flatMap((c) => Array.from({ length: 30 }, (_, i) => cubicAt(c, 0.1 + i / 40))));
  const dark = along.map((p) => at(p.x * scale, p.y * scale));
  expect(dark.reduce((a, b) => a + b) / dark.length).toBeLessThan(190);
  let [light, count] = [0, 0];
  for (let x = 40; x < pearPage.width; x += 130) {
    for (let y = 40; y < pearPage.height; y += 130) {
      if (pearLines.some((l) => l.cubics.some((c) => nearestOnCubic(c, { x, y }).distance < 20))) continue;
      light += at(x * scale, y * scale);
      count++;
    }
  }
  expect(light / count).toBeGreaterThan(230);
}, 30_000);

test('the pear drawing is a drawing, and partly traced', () => {
  const drawing = partlyTracedPear();
  expect(drawingSchema.parse(drawing)).toEqual(drawing);
  const empty = drawing.sheets.filter((s) => linesOf(s).length === 0).length;
  expect(empty).toBeGreaterThan(0);
  expect(empty).toBeLessThan(drawing.sheets.length);
});

import { emptyDrawing, firstStyle, type Cubic, type Drawing, type Line } from '..';
import { plainPage } from '../drawing/schema';
import { runFromCubics } from '../drawing/fromCubics';
import { waveOutline } from '../edits/notes';
import { applyChange } from '../change/apply';
import { laidReference } from '../test/laidReference';
import { photo, photos, plain, textured } from '../test/photo';
import { distanceToCurves, walk } from '../test/strokes';
import { strongOutlines } from '../edges/strongOutlines';
import { CoveredInk } from './coveredInk';

const { image, outlines } = photos()[0];
const page = plainPage({ width: image.width, height: image.height, unit: 'px', dpi: 96, ground: null });
const reference = { ...laidReference(page, image.width, image.height), target: 'edge' as const };
const drawn = (...lines: (readonly Cubic[])[]): Drawing => {
  const d = emptyDrawing(page, { id: 's', name: 'Sheet', tag: '#000000' });
  const items = lines.map((cubics, i): Line => ({
    id: `l${i}`,
    style: firstStyle,
    runs: [runFromCubics(cubics, true)],
  }));
  return { ...d, references: [reference], sheets: [{ ...d.sheets[0], items }] };
};
const counted = (d: Drawing): CoveredInk => {
  const ink = new CoveredInk(new Map([[reference.id, image]]));
  for (const step of ink.counting(d, 4)) void step;
  return ink;
};

test('the strong outlines of a photo are those of its things, in few pieces; texture alone has none', () => {
  for (const { name, image: own, outlines: truths } of photos()) {
    const found = strongOutlines(own);
    const all = truths.flat();
    const places = found.flatMap((o) => [...o.points]);
    if (!name.includes('shadow')) {
      const off = places.filter((p) => distanceToCurves(all, p) > 2.5).length;
      expect(off / places.length).toBeLessThan(0.1);
    }
    for (const truth of truths) {
      const seen = walk(truth, 4).filter((p) => places.some((q) => Math.hypot(p.x - q.x, p.y - q.y) < 3));
      expect(seen.length / walk(truth, 4).length).toBeGreaterThan(0.9);
    }
    expect(found.slice(0, 2).reduce((n, o) => n + o.points.length, 0)).toBeGreaterThan(0.5 * places.length);
  }
  for (const ground of [plain([0.6, 0.02, 0.04]), textured([0.6, -0.03, 0.05], 0.08, 9, 3)])
    expect(strongOutlines(photo(400, 300, ground, [], { blur: 1, noise: 4, seed: 2 }))).toHaveLength(0);
});

test('outlines without a line are led to, the longest first; what has one, or was waved through, is not', () => {
  const none = counted(drawn());
  const open = none.untraced(drawn(), reference.id, 4)!.patches;
  expect(open.length).toBeGreaterThan(1);
  expect(none.figures(drawn(), 4)[0].covered).toBe(0);
  const one = drawn(outlines[0]);
  const ink = counted(one);
  expect(ink.figures(one, 4)[0].covered).toBeGreaterThan(0.4);
  const left = ink.untraced(one, reference.id, 4)!.patches;
  const box = left[0].box;
  // What is left is the other thing.
  expect(box.minX).toBeGreaterThan(285);
  const waved = applyChange(one, { id: 'w', ...waveOutline(one, left[0].outline!) });
  const keys = ink.untraced(waved, reference.id, 4)!.patches.map((p) => p.outline);
  expect(keys).not.toContain(left[0].outline);
  expect(keys.length).toBeLessThan(left.length);
});

test('a piece becomes few curves that lie on the outline', () => {
  const d = drawn();
  const ink = counted(d);
  const [first] = ink.untraced(d, reference.id, 4)!.patches;
  const cubics = ink.outline(d, reference.id, first.outline!, 4)!;
  expect(cubics.length).toBeLessThan(10);
  const off = walk(cubics, 3).map((p) => distanceToCurves(outlines.flat(), p));
  expect(off.filter((x) => x < 1.2).length / off.length).toBeGreaterThan(0.96);
  expect(ink.outline(d, reference.id, 'outline of nothing', 4)).toBeNull();
});

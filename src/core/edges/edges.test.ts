import { distanceFromInk, settle, type Cubic } from '..';
import type { Lab } from '../colour/oklab';
import { labOf } from '../colour/oklab';
import { mapCubics } from '../geometry/cubic';
import { seeded } from '../seeded';
import { disturbed } from '../test/disturbed';
import { blob, photo, photos, plain, shaded, textured } from '../test/photo';
import { distanceToCurves, walk } from '../test/strokes';
import { labPictureOf, UNITS } from './labPicture';

const scenes = photos();
const moved = (cubics: readonly Cubic[], x: number, y: number): Cubic[] =>
  mapCubics(cubics, (p) => ({ x: p.x + x, y: p.y + y }));

test('a picture in OKLab is as its colours are', () => {
  const random = seeded(4);
  const data = Uint8Array.from({ length: 3 * 400 }, () => 256 * random());
  const { values } = labPictureOf({ width: 20, height: 20, channels: 3, data });
  for (let i = 0; i < data.length; i += 3)
    labOf(data[i], data[i + 1], data[i + 2]).forEach((v, c) =>
      expect(Math.abs(values[i + c] / UNITS - v)).toBeLessThan(3e-4),
    );
});

test.each(scenes.map((s) => [s.name, s] as const))('outlines are settled onto edges in colour: %s', (_, scene) => {
  for (const [k, truth] of scene.outlines.entries())
    for (const seed of [1, 2]) {
      const cubics = disturbed(truth, true, 6, seeded(10 * seed + k));
      const settled = settle({ cubics, closed: true }, scene.image, { reach: 10, target: 'edge' });
      expect(settled.cubics).toHaveLength(cubics.length);
      const [before, after] = [cubics, settled.cubics].map((r) => walk(r, 2).map((p) => distanceToCurves(truth, p)));
      expect(after.filter((d) => d <= 1).length / after.length).toBeGreaterThan(0.97);
      expect(Math.max(...after)).toBeLessThan(Math.max(...before));
    }
});

test('on plain ground, on shading and on texture alone nothing moves, and no distance is known', () => {
  const green: Lab = [0.6, -0.03, 0.05];
  const rough = textured(green, 0.09, 9, 3);
  const half = (x: number, y: number): Lab => (x < 300 ? green : rough(x, y));
  const grounds = [plain(green), shaded(green, { x: 260, y: 200 }, 300, 0.2), textured(green, 0.09, 6, 3), half];
  for (const [i, ground] of grounds.entries()) {
    const image = photo(660, 400, ground, [], { blur: 1, noise: 4, seed: i });
    for (let seed = 1; seed <= 4; seed++) {
      const random = seeded(seed);
      const radii = Array.from({ length: 8 }, () => 70 + 50 * random());
      const run = { cubics: blob(470 + 40 * random(), 170 + 60 * random(), radii), closed: seed % 2 === 0 };
      expect(settle(run, image, { reach: 10, target: 'edge' })).toBe(run);
      const { samples } = distanceFromInk(run, image, { reach: 10, target: 'edge' });
      expect(samples.every((s) => s.distance === null)).toBe(true);
    }
  }
});

test('distances from edges are as far as lines were moved', () => {
  for (const { name, image, outlines } of scenes)
    for (const truth of outlines.slice(0, 1))
      for (const by of [0, 2.5, -5]) {
        const run = { cubics: moved(truth, by, 0), closed: true };
        const { samples } = distanceFromInk(run, image, { reach: 9, target: 'edge' });
        const places = walk(run.cubics, 0.5);
        const off = samples.map(({ at, distance }) => {
          const p = places[Math.min(places.length - 1, Math.round(at * (places.length - 1)))];
          return distance === null ? NaN : Math.abs(distance - distanceToCurves(truth, p));
        });
        const known = off.filter((d) => !Number.isNaN(d)).sort((a, b) => a - b);
        expect(known.length / off.length).toBeGreaterThan(0.97);
        // What is out of focus has no sharper place.
        expect(known[Math.floor(0.95 * known.length)]).toBeLessThan(name === 'out of focus' ? 1 : 0.3);
        expect(known[known.length >> 1]).toBeLessThan(0.3);
      }
});

test('a line beside a soft shadow stays with the thing that throws it', () => {
  const { image, outlines } = scenes[3];
  // Nearer to the border of the shadow than to the thing, all along its lower right side.
  const run = { cubics: moved(outlines[0], 6, 6), closed: true };
  const { cubics } = settle(run, image, { reach: 12, target: 'edge' });
  const off = walk(cubics, 2).map((p) => distanceToCurves(outlines[0], p));
  expect(off.filter((d) => d <= 1).length / off.length).toBeGreaterThan(0.95);
});

test('a grey photo is settled by its tones', () => {
  const tone = (v: number) => plain([v, 0, 0]);
  const thing = { outline: blob(180, 190, [110, 100, 96, 118, 124, 104]), tint: tone(0.45) };
  const { width, height, data } = photo(400, 380, tone(0.6), [thing], { blur: 1, noise: 3, seed: 2 });
  const image = { width, height, data: data.filter((_, i) => i % 3 === 1) };
  const { cubics } = settle({ cubics: disturbed(thing.outline, true, 6, seeded(3)), closed: true }, image, {
    reach: 10,
    target: 'edge',
  });
  for (const p of walk(cubics, 3)) expect(distanceToCurves(thing.outline, p)).toBeLessThan(1);
});

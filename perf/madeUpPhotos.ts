import sharp from 'sharp';
import { follow, settle, type Cubic, type Point } from '../src/core';
import type { Lab } from '../src/core/colour/oklab';
import type { ColourImage } from '../src/core/raster/colourImage';
import { seeded } from '../src/core/seeded';
import { disturbed } from '../src/core/test/disturbed';
import { blob, leaf, photo, plain, shaded, textured, type Thing, type Tint } from '../src/core/test/photo';
import { distanceToCurves, walk } from '../src/core/test/strokes';

const SIZE = { width: 600, height: 460 };
/** No colour is stronger than this: a photo has none that its file cannot hold. */
const STRONGEST = 0.11;

/** A photo of two things in chance colours: as light as the ground or not, shaded, textured, soft, in a shadow or without. JPEG. */
async function madeUpPhoto(seed: number): Promise<{ image: ColourImage; outlines: Cubic[][] }> {
  const random = seeded(1000 + seed);
  const between = (least: number, most: number): number => least + (most - least) * random();
  const pick = (make: () => Lab, isGood: (c: Lab) => boolean): Lab => {
    for (;;) {
      const found = make();
      if (isGood(found)) return found;
    }
  };
  const ground = pick(
    () => [between(0.4, 0.75), between(-0.08, 0.08), between(-0.08, 0.08)],
    (c) => Math.hypot(c[1], c[2]) < 0.07,
  );
  /** A colour so far from the ground's; half of them nearly as light. */
  const other = (): Lab => {
    const [far, light] = [between(0.06, 0.22), random() < 0.5 ? 0.2 : 1];
    return pick(
      () => {
        const by = [light * between(-1, 1), between(-1, 1), between(-1, 1)];
        const length = Math.hypot(...by);
        return [0, 1, 2].map((c) => ground[c] + (far * by[c]) / length) as unknown as Lab;
      },
      (c) => c[0] > 0.35 && c[0] < 0.9 && Math.hypot(c[1], c[2]) < STRONGEST,
    );
  };
  const tintOf = (c: Lab, at: Point, n: number): Tint => {
    const kind = random();
    if (kind < 0.33) return plain(c);
    if (kind < 0.66) return shaded(c, at, 250, between(0.02, 0.1));
    return textured(c, between(0.02, 0.06), between(8, 28), 10 * seed + n);
  };
  const thing = (outline: Cubic[], at: Point, n: number): Thing => ({
    outline,
    tint: tintOf(other(), at, n),
    soft: random() < 0.25 ? between(1, 4) : 0,
    ...(random() < 0.5 && {
      shadow: { by: { x: between(10, 25), y: between(10, 25) }, soft: between(5, 15), dark: between(0.3, 0.7) },
    }),
  });
  const middle = { x: between(180, 210), y: between(210, 240) };
  const radii = Array.from({ length: 7 + Math.floor(3 * random()) }, () => between(95, 130));
  const [a, b] = [
    { x: between(360, 390), y: between(380, 410) },
    { x: between(520, 550), y: between(70, 110) },
  ];
  const things = [
    thing(blob(middle.x, middle.y, radii), middle, 1),
    thing(leaf(a, b, between(40, 80)), { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, 3),
  ];
  const under = random() < 0.5 ? plain(ground) : textured(ground, between(0.02, 0.07), between(8, 38), 10 * seed + 7);
  const taken = { blur: between(0.7, 1.7), noise: between(2, 7), seed };
  const { width, height, data } = photo(SIZE.width, SIZE.height, under, things, taken);
  const jpeg = await sharp(Buffer.from(data), { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 84 })
    .toBuffer();
  const seen = new Uint8Array(await sharp(jpeg).raw().toBuffer());
  return { image: { width, height, channels: 3, data: seen }, outlines: things.map((t) => [...t.outline]) };
}

/** How lines come to lie on made-up photos: settled when every node is off by 6 px, and followed by a hand that strays 3 px. */
export async function onMadeUpPhotos(count: number): Promise<unknown> {
  const [settled, followed] = [sums(), sums()];
  let [further, segments, trueSegments] = [0, 0, 0];
  for (let seed = 1; seed <= count; seed++) {
    const { image, outlines } = await madeUpPhoto(seed);
    for (const [k, truth] of outlines.entries()) {
      const random = seeded(7 * seed + k);
      const start = { cubics: disturbed(truth, true, 6, random), closed: true };
      const run = settle(start, image, { reach: 10, target: 'edge' });
      if (settled.add(run.cubics, truth, 1) > meanOff(start.cubics, truth)) further++;
      const hand = walk(truth, 10).map((p) => ({ x: p.x + 6 * (random() - 0.5), y: p.y + 6 * (random() - 0.5) }));
      const found = follow(image, hand, { target: 'edge' });
      followed.add(found, truth, 1.5);
      segments += found.length;
      trueSegments += truth.length;
    }
  }
  return {
    photos: count,
    settledWithin1px: settled.share(),
    settledBelow95: settled.below,
    further,
    followedWithin1_5px: followed.share(),
    followedBelow95: followed.below,
    segments,
    trueSegments,
  };
}

const offOf = (cubics: readonly Cubic[], truth: readonly Cubic[]): number[] =>
  walk(cubics, 2).map((p) => distanceToCurves(truth, p));
const meanOff = (cubics: readonly Cubic[], truth: readonly Cubic[]): number => {
  const off = offOf(cubics, truth);
  return off.reduce((a, b) => a + b, 0) / off.length;
};

/** The share of all places that lie near enough, and how many outlines have too few. Adding gives how far one is off, on the mean. */
function sums() {
  let [near, all] = [0, 0];
  const found = {
    below: 0,
    add(cubics: readonly Cubic[], truth: readonly Cubic[], within: number): number {
      const off = offOf(cubics, truth);
      const own = off.filter((d) => d <= within).length;
      near += own;
      all += off.length;
      if (own < 0.95 * off.length) found.below++;
      return off.reduce((a, b) => a + b, 0) / off.length;
    },
    share: () => Math.round((10_000 * near) / all) / 10_000,
  };
  return found;
}

import { createNoise2D } from 'simplex-noise';
import { rgbOf, type Lab } from '../colour/oklab';
import { mapCubics, type Cubic } from '../geometry/cubic';
import { add, type Point } from '../geometry/point';
import { blurredValues } from '../raster/blur';
import type { ColourImage } from '../raster/colourImage';
import { seeded } from '../seeded';
import { walk } from './strokes';

/** A colour of a place in a photo. */
export type Tint = (x: number, y: number) => Lab;
/** A thing in a photo: its closed outline, its colour, how soft its edge is, and the shadow that it throws. */
export type Thing = {
  readonly outline: readonly Cubic[];
  readonly tint: Tint;
  readonly soft?: number;
  readonly shadow?: { readonly by: Point; readonly soft: number; readonly dark: number };
};
export type Taken = { readonly blur: number; readonly noise: number; readonly seed: number };

const FINE = 4;

export const plain =
  (colour: Lab): Tint =>
  () =>
    colour;
/** A colour that changes from place to place: lighter and darker by so much, over so many px. */
export function textured([l, a, b]: Lab, amount: number, size: number, seed: number): Tint {
  const [coarse, fine] = [createNoise2D(seeded(seed)), createNoise2D(seeded(seed + 1))];
  return (x, y) => {
    const n = (coarse(x / size, y / size) + 0.5 * fine((2.3 * x) / size, (2.3 * y) / size)) / 1.5;
    const k = 1 + (amount * n) / l;
    return [l * k, a * k, b * k];
  };
}
/** A round thing's shading: lighter to the upper left of a place, darker to the lower right. */
export const shaded =
  ([l, a, b]: Lab, at: Point, size: number, by: number): Tint =>
  (x, y) => {
    const k = 1 - (by / l) * Math.max(-1, Math.min(1, (x - at.x + y - at.y) / size));
    return [l * k, a * k, b * k];
  };

/** What a camera makes of things that lie over a ground, the last above: soft, and noisy. Colours are OKLab. */
export function photo(
  width: number,
  height: number,
  ground: Tint,
  things: readonly Thing[],
  { blur, noise, seed }: Taken,
): ColourImage {
  const planes = [0, 1, 2].map(() => new Float32Array(width * height));
  const eachPixel = (visit: (i: number, x: number, y: number) => void): void => {
    for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) visit(y * width + x, x, y);
  };
  eachPixel((i, x, y) => ground(x, y).forEach((v, c) => (planes[c][i] = v)));
  for (const { outline, tint, soft = 0, shadow } of things) {
    const cover = blurredValues(covered(outline, width, height), width, height, soft);
    if (shadow) {
      const moved = mapCubics(outline, (p) => add(p, shadow.by));
      const dark = blurredValues(covered(moved, width, height), width, height, shadow.soft);
      // Light that is halved makes all of a colour's figures smaller by the same share.
      for (const plane of planes) plane.forEach((v, i) => (plane[i] = v * Math.cbrt(1 - shadow.dark * dark[i])));
    }
    eachPixel((i, x, y) => {
      if (cover[i] > 0) tint(x, y).forEach((v, c) => (planes[c][i] += (v - planes[c][i]) * cover[i]));
    });
  }
  const seen = planes.map((p) => blurredValues(p, width, height, blur));
  const random = seeded(seed);
  const data = new Uint8Array(3 * width * height);
  for (let i = 0; i < width * height; i++)
    rgbOf([seen[0][i], seen[1][i], seen[2][i]]).forEach((v, c) => {
      const grain = noise * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      data[3 * i + c] = Math.max(0, Math.min(255, Math.round(v + grain)));
    });
  return { width, height, channels: 3, data };
}

/** How much of each pixel lies within an outline, 0…1. */
export function covered(outline: readonly Cubic[], width: number, height: number): Float32Array {
  const points = walk(outline, 0.5);
  const cover = new Float32Array(width * height);
  for (let row = 0; row < height * FINE; row++) {
    const y = (row + 0.5) / FINE;
    const xs: number[] = [];
    for (let k = 0; k < points.length; k++) {
      const [p, q] = [points[k], points[(k + 1) % points.length]];
      if (p.y <= y !== q.y <= y) xs.push(p.x + ((y - p.y) * (q.x - p.x)) / (q.y - p.y));
    }
    xs.sort((a, b) => a - b);
    for (let k = 0; k + 1 < xs.length; k += 2)
      for (let x = Math.max(0, Math.floor(xs[k])); x < Math.min(width, xs[k + 1]); x++)
        cover[Math.floor(row / FINE) * width + x] +=
          Math.max(0, Math.min(xs[k + 1], x + 1) - Math.max(xs[k], x)) / FINE;
  }
  return cover;
}

const at = (x: number, y: number): Point => ({ x, y });

/** A smooth closed outline about a place, through points this far from it at even turns. */
export function blob(x: number, y: number, radii: readonly number[]): Cubic[] {
  const n = radii.length;
  const points = radii.map((r, k) => {
    const turn = (2 * Math.PI * k) / n;
    return at(x + r * Math.cos(turn), y + r * Math.sin(turn));
  });
  return points.map((p, k): Cubic => {
    const [before, q, after] = [points[(k + n - 1) % n], points[(k + 1) % n], points[(k + 2) % n]];
    return [
      p,
      at(p.x + (q.x - before.x) / 6, p.y + (q.y - before.y) / 6),
      at(q.x - (after.x - p.x) / 6, q.y - (after.y - p.y) / 6),
      q,
    ];
  });
}

/** A leaf from one tip to another: two corners. */
export const leaf = (a: Point, b: Point, wide: number): Cubic[] => {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const l = Math.hypot(dx, dy);
  const [nx, ny] = [(-dy / l) * wide, (dx / l) * wide];
  const on = (t: number, s: number): Point => at(a.x + dx * t + nx * s, a.y + dy * t + ny * s);
  return [
    [a, on(0.12, 0.8), on(0.3, 1), on(0.5, 1)],
    [on(0.5, 1), on(0.7, 1), on(0.88, 0.8), b],
    [b, on(0.88, -0.8), on(0.7, -1), on(0.5, -1)],
    [on(0.5, -1), on(0.3, -1), on(0.12, -0.8), a],
  ];
};

/** Photos of things whose outlines are known: of another hue but as light as the ground, shaded, textured, in soft shadow. */
export function photos(): { name: string; image: ColourImage; outlines: Cubic[][] }[] {
  const [w, h] = [520, 400];
  const round = blob(180, 190, [110, 100, 96, 118, 124, 104, 92, 100]);
  const long = leaf(at(300, 330), at(470, 80), 62);
  const taken = (blur: number, noise: number, seed: number): Taken => ({ blur, noise, seed });
  const [brown, green]: Lab[] = [
    [0.5, 0.05, 0.06],
    [0.55, -0.07, 0.07],
  ];
  const [rose, blue, grey]: Lab[] = [
    [0.66, 0.1, 0.02],
    [0.66, -0.03, -0.09],
    [0.66, -0.02, 0.01],
  ];
  const [sand, stone]: Lab[] = [
    [0.72, 0.015, 0.06],
    [0.68, 0, 0.005],
  ];
  const scene = (name: string, ground: Tint, things: Thing[], how: Taken) => ({
    name,
    image: photo(w, h, ground, things, how),
    outlines: things.map((t) => [...t.outline]),
  });
  const shadow = { by: at(16, 18), soft: 9, dark: 0.6 };
  return [
    scene(
      'brown on green',
      textured(green, 0.03, 14, 3),
      [
        { outline: round, tint: textured(brown, 0.03, 9, 5) },
        { outline: long, tint: plain(brown) },
      ],
      taken(1, 4, 11),
    ),
    scene(
      'rose and blue on grey-green as light',
      plain(grey),
      [
        { outline: round, tint: shaded(rose, at(180, 190), 260, 0.05) },
        { outline: long, tint: plain(blue) },
      ],
      taken(1.2, 4, 12),
    ),
    scene(
      'sand on grey',
      plain(stone),
      [
        { outline: round, tint: shaded(sand, at(180, 190), 260, 0.04) },
        { outline: long, tint: textured(sand, 0.02, 12, 8) },
      ],
      taken(1, 3.5, 13),
    ),
    scene(
      'in soft shadow',
      textured(stone, 0.015, 30, 4),
      [
        { outline: round, tint: shaded([0.6, -0.08, 0.03], at(180, 190), 240, 0.12), shadow },
        { outline: long, tint: shaded([0.55, 0.11, 0.05], at(385, 205), 200, 0.08), shadow },
      ],
      taken(1, 4, 14),
    ),
    scene(
      'out of focus',
      plain([0.6, -0.03, 0.06]),
      [
        { outline: round, tint: shaded([0.68, 0.03, 0.09], at(180, 190), 260, 0.06), soft: 4 },
        { outline: long, tint: plain([0.5, 0, -0.04]), soft: 3 },
      ],
      taken(1, 4, 15),
    ),
    scene(
      'textured on textured',
      textured([0.58, -0.02, 0.05], 0.07, 10, 21),
      [
        { outline: round, tint: textured([0.56, 0.07, 0.05], 0.06, 8, 23) },
        { outline: long, tint: textured([0.7, 0.02, -0.05], 0.05, 12, 25), shadow: { ...shadow, dark: 0.4 } },
      ],
      taken(1, 4, 16),
    ),
  ];
}

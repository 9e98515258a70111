import { blurred } from '../src/core/raster/blur';
import type { Cubic, GrayImage, Point } from '../src/core';
import { evaluate } from '../src/core/geometry/cubic';
import { seeded } from '../src/core/seeded';
import { inkPicture, type Inked } from '../src/core/test/inkPicture';

/** A stroke of known width over which others lie, and how it looks in ink. */
export type CrossingScene = {
  readonly image: GrayImage;
  readonly cubics: Cubic[];
  /** The whole width at a share of the length. */
  readonly width: (at: number) => number;
  /** How far a place is from the ink of the others, px; below 0 within it. */
  readonly toOthers: (p: Point) => number;
};

const [WIDTH, HEIGHT] = [520, 320];

/**
 * A made-up crossing: a bowed stroke of even, swelling or tapering width, 2 to 40 px, and one to three others of 2 to 40
 * px that cross it at 8 to 90 degrees, or a hub that it ends in or runs through; softly scanned, with some grain.
 */
export function crossingScene(seed: number): CrossingScene {
  const random = seeded(seed);
  const between = (a: number, b: number): number => a + (b - a) * random();
  const size = (): number => 2 * 20 ** random();
  const bow = between(-60, 60);
  const cubics: Cubic[] = [
    [
      { x: 30, y: 160 },
      { x: 180, y: 160 + bow },
      { x: 340, y: 160 + between(-0.5, 1) * bow },
      { x: 490, y: 160 + between(-20, 20) },
    ],
  ];
  const thick = size();
  const kind = Math.floor(3 * random());
  const width = (at: number): number =>
    kind === 0 ? thick : kind === 1 ? thick * (0.6 + 0.6 * Math.sin(Math.PI * at)) : thick * (0.6 + 0.6 * at);
  const others: Inked[] = [];
  const isHub = random() < 0.25;
  if (isHub) {
    const c = evaluate(cubics[0], random() < 0.6 ? 1 : 0.5);
    others.push({ cubics: [lineOf(c, { x: c.x + 0.5, y: c.y })], width: between(1.5, 4) * Math.max(8, thick) });
  }
  const count = isHub ? 1 : 1 + Math.floor(3 * random());
  for (let k = 0; k < count; k++) {
    const t = between(0.15, 0.85);
    const [p, q] = [evaluate(cubics[0], t - 0.01), evaluate(cubics[0], t + 0.01)];
    const angle = Math.atan2(q.y - p.y, q.x - p.x) + (random() < 0.5 ? -1 : 1) * ((between(8, 90) * Math.PI) / 180);
    const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
    const [back, on] = [between(40, 400), random() < 0.25 ? 0 : between(40, 400)];
    others.push({
      cubics: [lineOf({ x: p.x - back * dx, y: p.y - back * dy }, { x: p.x + on * dx, y: p.y + on * dy })],
      width: size(),
    });
  }
  const drawn = blurred(inkPicture(WIDTH, HEIGHT, [{ cubics, width }, ...others]), between(0.5, 1));
  const grain = between(0, 12);
  const data = drawn.data.map((v) => Math.max(0, Math.min(255, v + grain * (random() - 0.5))));
  const rows = others.map((o) => ({ c: o.cubics[0], half: (o.width as number) / 2 }));
  return {
    image: { ...drawn, data },
    cubics,
    width,
    toOthers: (p) => Math.min(...rows.map(({ c, half }) => toChord(p, c[0], c[3]) - half)),
  };
}

const lineOf = (a: Point, b: Point): Cubic => [a, a, b, b];

function toChord(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

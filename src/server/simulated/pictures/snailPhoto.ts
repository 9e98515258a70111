import sharp from 'sharp';
import type { Point } from '@/core';
import { seeded } from '@/core/seeded';
import { snailLines, snailPage } from '../curves/snail';
import { cornersOfBox, homographyBetween, mapPoint } from '@/core/raster/homography';
import { gaussian, octaves, smoothNoise } from './noise';
import { drawInPencil } from './pencil';

export const snailPhotoSize = { width: 2400, height: 1800 };

/** Where the corners of the sketchbook page lie in the photo, from the upper left one on, clockwise. */
export const snailCorners = [
  { x: 318, y: 236 },
  { x: 2128, y: 150 },
  { x: 2236, y: 1560 },
  { x: 196, y: 1622 },
] as const;

/** How a photo of the page is taken. Lengths are shares of the photo's width and height, from its upper left. */
export type Shot = {
  size: { width: number; height: number };
  /** The page's corners, px, from its upper left one on, clockwise. */
  corners: readonly Point[];
  /** Where the light comes from, degrees (0: the right, 90: below), and how far it falls off across the photo, 0…0.5. */
  light: { from: number; fall: number };
  /** How dark the corner opposite the light is, 0…0.6. */
  dark: number;
  /** How light the table is beside the demo's own, about 0.5…1.3. */
  table: number;
  seed: number;
};

export const snailShot: Shot = {
  size: snailPhotoSize,
  corners: snailCorners,
  light: { from: 212, fall: 0.19 },
  dark: 0.42,
  table: 1,
  seed: 11,
};

const PAGE_SCALE = 1.5;

/** A phone photo of a sketchbook page on a table: seen from aside, one corner dark, warm light, sensor noise. JPEG. */
export async function snailPhoto(shot: Shot = snailShot): Promise<Buffer> {
  const { width, height } = shot.size;
  const [pageW, pageH] = [snailPage.width * PAGE_SCALE, snailPage.height * PAGE_SCALE];
  const graphite = drawInPencil(snailLines, pageW, pageH, PAGE_SCALE, 97);
  const toPage = homographyBetween(shot.corners, cornersOfBox(pageW, pageH));
  const wood = octaves(23 + shot.seed - 11, 3);
  const rings = smoothNoise(29 + shot.seed - 11);
  const grain = octaves(31, 3);
  const random = seeded(shot.seed);
  const lightAt = lightOf(shot);
  const pixels = Buffer.alloc(width * height * 3);
  // Wood and grain keep their size when the photo is taken larger or smaller.
  const k = snailPhotoSize.width / width;
  for (let y = 0; y < height; y++) {
    // The server must be able to do something else meanwhile.
    if (y % 48 === 0) await new Promise(setImmediate);
    for (let x = 0; x < width; x++) {
      const { x: u, y: v } = mapPoint(toPage, { x: x + 0.5, y: y + 0.5 });
      const light = lightAt(x / width, y / height);
      const isPage = u >= 0 && v >= 0 && u < pageW && v < pageH;
      const [r, g, b] = isPage ? paperAt(u, v) : tableAt(u, v, x * k, y * k);
      const noise = 3.2 * gaussian(random);
      const i = (y * width + x) * 3;
      pixels[i] = clamp(r * light * 1.02 + noise);
      pixels[i + 1] = clamp(g * light * 0.985 + noise);
      pixels[i + 2] = clamp(b * light * 0.93 + noise);
    }
  }
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .blur(0.9)
    .jpeg({ quality: 82 })
    .toBuffer();

  function paperAt(u: number, v: number): [number, number, number] {
    const hole = spiralHole(u, v, pageH);
    if (hole > 0) return [64 - 20 * hole, 58 - 20 * hole, 52 - 18 * hole];
    const p = 231 + 5 * grain(u / 8, v / 8);
    const ink = sample(graphite.data, graphite.width, graphite.height, u, v) * 172;
    return [p - ink, p - 2 - ink, p - 8 - ink];
  }

  function tableAt(u: number, v: number, x: number, y: number): [number, number, number] {
    const bands = Math.sin(y / 23 + 5 * wood(x / 900, y / 160) + 2 * rings(x / 1400, y / 300));
    const fibre = wood(x / 120, y / 7);
    const base = shot.table * (0.5 + 0.13 * bands + 0.1 * fibre);
    // The page lies a little above the table: its shadow falls to the lower right.
    const beside = Math.max(Math.max(-u, u - pageW), Math.max(-v, v - pageH));
    const shade = u > -20 && v > -20 ? 1 - 0.45 * Math.exp(-beside / 26) : 1 - 0.2 * Math.exp(-beside / 14);
    return [(112 + 70 * base) * shade, (78 + 54 * base) * shade, (50 + 38 * base) * shade];
  }
}

const clamp = (v: number): number => Math.min(255, Math.max(0, v));

/** The light at a place of a photo (shares of its sides): it falls off across it, and the far corner lies in shadow. */
function lightOf({ light, dark }: Shot): (x: number, y: number) => number {
  const a = (light.from * Math.PI) / 180;
  const [ax, ay] = [-Math.cos(a), -Math.sin(a)];
  // The way from the light, 0 at the photo's middle; about ±0.6 at its corners.
  const away = (x: number, y: number): number => ax * (x - 0.5) + ay * (y - 0.5);
  return (x, y) => 0.93 - light.fall * away(x, y) - dark / (1 + Math.exp(-12 * (away(x, y) - 0.44)));
}

/** The holes of the binding along the left edge: 1 in the middle of one, 0 outside. */
function spiralHole(u: number, v: number, pageH: number): number {
  const pitch = pageH / 30;
  const dv = ((v + pitch / 2) % pitch) - pitch / 2;
  return Math.max(0, 1 - Math.hypot((u - 44) / 12, dv / 11));
}

function sample(data: Float32Array, width: number, height: number, x: number, y: number): number {
  const [px, py] = [
    Math.max(0, Math.min(width - 2, Math.floor(x - 0.5))),
    Math.max(0, Math.min(height - 2, Math.floor(y - 0.5))),
  ];
  const [fx, fy] = [Math.min(1, Math.max(0, x - 0.5 - px)), Math.min(1, Math.max(0, y - 0.5 - py))];
  const i = py * width + px;
  return (
    (data[i] * (1 - fx) + data[i + 1] * fx) * (1 - fy) + (data[i + width] * (1 - fx) + data[i + width + 1] * fx) * fy
  );
}

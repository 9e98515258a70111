import sharp from 'sharp';
import { pageCorners, skewAngle } from '../src/core';
import { grayImage } from '../src/core/raster/grayImage';
import { seeded } from '../src/core/seeded';
import { paperPicture } from './readPicture';
import { shotOf } from '../src/server/simulated/pictures/shots';
import { snailPhoto, snailShot, type Shot } from '../src/server/simulated/pictures/snailPhoto';

/** How far the found corners lie from the true ones at most, for a photo 2,000 px wide. */
async function cornerError(shot: Shot): Promise<number> {
  const found = pageCorners(await paperPicture(await snailPhoto(shot)));
  if (!found) return Infinity;
  const errors = found.map((p, i) => Math.hypot(p.x - shot.corners[i].x, p.y - shot.corners[i].y));
  return (Math.max(...errors) * 2000) / shot.size.width;
}

test('the corners of the sketchbook page are found in the demo’s photo', async () => {
  expect(await cornerError(snailShot)).toBeLessThan(2);
}, 60_000);

test('and in other photos of it: other angles, lights and tables', async () => {
  for (const n of [2, 13]) expect(await cornerError(shotOf(n, { width: 1200, height: 900 }))).toBeLessThan(6);
}, 60_000);

test('no page is found where there is none', async () => {
  const random = seeded(2);
  const noise = grayImage(400, 300);
  for (let i = 0; i < noise.data.length; i++) noise.data[i] = 120 + 30 * random();
  expect([pageCorners(noise), skewAngle(noise)]).toEqual([null, null]);
});

describe('how far a picture lies askew', () => {
  const svg = (content: string, ground: string): Buffer =>
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="800"><rect width="1000" height="800" fill="${ground}"/>${content}</svg>`,
    );
  const ruled = (angle: number): Buffer =>
    svg(
      `<g transform="rotate(${angle} 500 400)">${Array.from({ length: 30 }, (_, i) => `<path d="M-200 ${i * 40 - 200}H1200" stroke="#9fb4c8" stroke-width="2"/>`).join('')}<path d="M300 200 C500 500 600 300 700 560" stroke="#444" stroke-width="5" fill="none"/></g>`,
      '#f4f1e8',
    );
  const onBed = (angle: number): Buffer =>
    svg(
      `<g transform="rotate(${angle} 500 400)"><rect x="180" y="130" width="640" height="520" fill="#f1eee4"/><circle cx="480" cy="380" r="150" stroke="#555" stroke-width="6" fill="none"/></g>`,
      '#3a3a3c',
    );
  test.each([-12.3, -4.45, -0.6, 0, 0.35, 3.1, 11.7])(
    '%f degrees, by ruled lines and by the paper’s edge',
    async (angle) => {
      for (const picture of [ruled(angle), onBed(angle)]) {
        const bytes = await sharp(picture).blur(0.8).jpeg({ quality: 85 }).toBuffer();
        const found = skewAngle(await paperPicture(bytes));
        expect(found).not.toBeNull();
        expect(Math.abs(found! + angle)).toBeLessThan(0.1);
      }
    },
  );
});

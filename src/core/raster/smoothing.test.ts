import { seeded } from '../seeded';
import { gaussianKernel, blurred } from './blur';
import { blurredRgba } from './blurRgba';
import { edgePoints } from './edges';
import { grayImage, type GrayImage } from './grayImage';
import { eachPiece, fillHoles } from './mask';
import { paperAt, paperField, paperRow } from './paper';
import { rgbaImage } from './rgba';
import { denoised } from './denoise';

const noise = (width: number, height: number, seed: number): GrayImage => {
  const random = seeded(seed);
  const image = grayImage(width, height);
  for (let i = 0; i < image.data.length; i++) image.data[i] = random() * 256;
  return image;
};

test('the kernel adds up to one, and a blur is the sum over it in both directions', () => {
  const half = gaussianKernel(1.3);
  expect(half.reduce((a, b) => a + b) * 2 - half[0]).toBeCloseTo(1, 5);
  const image = noise(17, 13, 3);
  const soft = blurred(image, 1.3);
  const reach = half.length - 1;
  const at = (x: number, y: number): number =>
    image.data[Math.max(0, Math.min(12, y)) * 17 + Math.max(0, Math.min(16, x))];
  for (let y = 0; y < 13; y++) {
    for (let x = 0; x < 17; x++) {
      let sum = 0;
      for (let j = -reach; j <= reach; j++)
        for (let i = -reach; i <= reach; i++) sum += half[Math.abs(i)] * half[Math.abs(j)] * at(x + i, y + j);
      expect(Math.abs(soft.data[y * 17 + x] - sum)).toBeLessThan(0.51);
    }
  }
  expect(blurred(image, 0)).toBe(image);
});

test('denoising takes the median of nine, as sorting would', () => {
  const [w, h] = [14, 11];
  const image = rgbaImage(w, h);
  const grey = noise(w, h, 9);
  grey.data.forEach((v, i) => image.data.set([v, 255 - v, v >> 1, 255], 4 * i));
  const clean = denoised(image, 1);
  const at = (x: number, y: number): number =>
    grey.data[Math.max(0, Math.min(h - 1, y)) * w + Math.max(0, Math.min(w - 1, x))];
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const nine = [-1, 0, 1].flatMap((dy) => [-1, 0, 1].map((dx) => at(x + dx, y + dy))).sort((a, b) => a - b);
      expect(clean.data[4 * (y * w + x)]).toBe(nine[4]);
    }
  }
  // Several rounds at once, strip by strip, are the same as one after another.
  const tall = rgbaImage(9, 130);
  const random = seeded(4);
  for (let i = 0; i < tall.data.length; i++) tall.data[i] = random() * 256;
  expect(denoised(tall, 3).data).toEqual(denoised(denoised(denoised(tall, 1), 1), 1).data);
});

test('the paper’s lightness is told through strokes and blots, and row by row as place by place', () => {
  const light = (x: number, y: number): number => 230 - 0.12 * x - 0.05 * y;
  const image = grayImage(600, 400);
  for (let y = 0; y < 400; y++) {
    for (let x = 0; x < 600; x++) {
      const isInk = x % 40 < 4 || Math.hypot(x - 300, y - 200) < 22;
      image.data[y * 600 + x] = light(x, y) * (isInk ? 0.4 : 1);
    }
  }
  const field = paperField(image);
  for (const [x, y] of [
    [30, 30],
    [300, 200],
    [570, 370],
    [120, 300],
  ])
    expect(Math.abs(paperAt(field, x, y) - light(x, y))).toBeLessThan(7);
  const row = new Float32Array(600);
  paperRow(field, 111, row);
  for (const x of [0, 5, 99, 300, 599]) expect(Math.abs(row[x] - paperAt(field, x + 0.5, 111.5))).toBeLessThan(1.5);
});

test('edges lie between dark and light, and point to the light', () => {
  const image = grayImage(80, 60);
  for (let y = 0; y < 60; y++) for (let x = 0; x < 80; x++) image.data[y * 80 + x] = x + 0.5 < 33 ? 60 : 200;
  const points = edgePoints(image, 1.2, 0.05);
  expect(points.length).toBeGreaterThan(40);
  for (const p of points) {
    expect(Math.abs(p.x - 33)).toBeLessThan(0.8);
    expect(p.nx).toBeGreaterThan(0.99);
  }
});

test('pieces of a mask hang together by corners or not, as is asked', () => {
  const mask = Uint8Array.from([1, 0, 0, 1, 0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 1, 0]);
  const count = (neighbours: 4 | 8): number[] => {
    const sizes: number[] = [];
    eachPiece(4, 4, mask, neighbours, (pixels) => sizes.push(pixels.length));
    return sizes.sort();
  };
  expect(count(4)).toEqual([1, 1, 1, 1]);
  expect(count(8)).toEqual([1, 1, 2]);
});

test('small holes within ink are filled, larger ones and the paper around are not', () => {
  const [w, h] = [40, 30];
  const mask = new Uint8Array(w * h);
  for (let y = 4; y < 26; y++) for (let x = 4; x < 36; x++) mask[y * w + x] = 1;
  const clear = (x0: number, y0: number, side: number): void => {
    for (let y = y0; y < y0 + side; y++) for (let x = x0; x < x0 + side; x++) mask[y * w + x] = 0;
  };
  clear(8, 8, 3);
  clear(18, 8, 12);
  fillHoles(mask, w, h, 24);
  expect([mask[9 * w + 9], mask[12 * w + 24], mask[0]]).toEqual([1, 0, 0]);
});

test('a wide blur of a colour picture, made on a reduced one, is what the kernel gives; see-through stays', () => {
  const [w, h] = [197, 171];
  const random = seeded(21);
  const image = rgbaImage(w, h);
  for (let i = 0; i < w * h; i++) {
    const x = i % w;
    image.data.set([x < 90 ? 40 : 220, 100 + random() * 40, x, (x * 3) % 256], 4 * i);
  }
  for (const sigma of [0.4, 0.8, 1.2, 1.4, 2.4, 4, 9, 22]) {
    const soft = blurredRgba(image, sigma);
    for (let c = 0; c < 3; c++) {
      const channel = grayImage(w, h);
      for (let i = 0; i < w * h; i++) channel.data[i] = image.data[4 * i + c];
      const exact = blurred(channel, sigma);
      let worst = 0;
      for (let i = 0; i < w * h; i++) worst = Math.max(worst, Math.abs(soft.data[4 * i + c] - exact.data[i]));
      expect(worst).toBeLessThanOrEqual(sigma < 1.3 ? 2 : 7);
    }
    expect(soft.data[4 * 500 + 3]).toBe(image.data[4 * 500 + 3]);
  }
});

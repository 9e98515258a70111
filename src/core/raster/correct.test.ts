import { correctedSize, firstCorrections, usualOrder, type Correction } from './correction';
import { seeded } from '../seeded';
import { corrected, CorrectionRun } from './correct';
import { cornersOfBox, homographyBetween, mapPoint } from './homography';
import { greyOf, paperValues, rgbaImage, type RgbaImage } from './rgba';
import { toneHistogram } from './tone';

type Colour = [number, number, number, number?];

const picture = (width: number, height: number, colour: (x: number, y: number) => Colour): RgbaImage => {
  const image = rgbaImage(width, height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [r, g, b, a = 255] = colour(x + 0.5, y + 0.5);
      image.data.set([r, g, b, a], (y * width + x) * 4);
    }
  }
  return image;
};
const at = (image: RgbaImage, x: number, y: number): number[] => {
  const i = (Math.floor(y) * image.width + Math.floor(x)) * 4;
  return [...image.data.subarray(i, i + 4)];
};
const ramp = picture(256, 4, (x) => [x - 0.5, x - 0.5, x - 0.5]);

test('levels, invert, grey, tint', () => {
  const levels = corrected(ramp, { kind: 'levels', on: true, black: 50, white: 200, middle: 1 });
  expect([at(levels, 50, 0)[0], at(levels, 125, 0)[0], at(levels, 200, 0)[0]]).toEqual([0, 128, 255]);
  expect(at(corrected(ramp, { kind: 'levels', on: true, black: 0, white: 255, middle: 0.5 }), 64, 0)[0]).toBe(128);
  expect(at(corrected(ramp, firstCorrections.invert), 30, 0)).toEqual([225, 225, 225, 255]);
  const grey = corrected(
    picture(2, 2, () => [255, 0, 0]),
    firstCorrections.grey,
  );
  expect(at(grey, 0, 0)).toEqual([54, 54, 54, 255]);
  const tint = corrected(ramp, { kind: 'tint', on: true, colour: '#204060' });
  expect([at(tint, 0, 0), at(tint, 255, 0)]).toEqual([
    [0x20, 0x40, 0x60, 255],
    [255, 255, 255, 255],
  ]);
});

test('a correction that is off changes nothing', () => {
  for (const kind of usualOrder) {
    const off = { ...firstCorrections[kind], on: false } as Correction;
    expect(corrected(ramp, off)).toBe(ramp);
    expect(correctedSize({ width: 256, height: 4 }, [off])).toEqual({ width: 256, height: 4 });
  }
});

test('crop and straighten take just what they name, and the size is told beforehand', () => {
  const image = picture(200, 100, (x, y) => [x, y, 0]);
  const crop: Correction = { kind: 'crop', on: true, left: 0.25, top: 0.1, right: 0.25, bottom: 0.4 };
  const cut = corrected(image, crop);
  expect([cut.width, cut.height]).toEqual([100, 50]);
  expect(at(cut, 0, 0).slice(0, 2)).toEqual(at(image, 50, 10).slice(0, 2));
  expect(correctedSize(image, [crop])).toEqual({ width: 100, height: 50 });

  const corners = [
    { x: 30, y: 20 },
    { x: 170, y: 10 },
    { x: 180, y: 90 },
    { x: 20, y: 80 },
  ];
  const straighten: Correction = {
    kind: 'straighten',
    on: true,
    corners: corners.map((p) => ({ x: p.x / 200, y: p.y / 100 })) as never,
    aspect: 2,
  };
  const straight = corrected(image, straighten);
  expect(straight.width / straight.height).toBeCloseTo(2, 1);
  const h = homographyBetween(cornersOfBox(straight.width, straight.height), corners);
  for (const [x, y] of [
    [10.5, 10.5],
    [80.5, 40.5],
    [150.5, 70.5],
  ]) {
    const p = mapPoint(h, { x, y });
    expect(Math.abs(at(straight, x, y)[0] - p.x)).toBeLessThan(1.2);
    expect(Math.abs(at(straight, x, y)[1] - p.y)).toBeLessThan(1.2);
  }
});

test('a turn goes clockwise, grows the picture, and leaves see-through what it lays bare', () => {
  const image = picture(60, 40, (x) => (x < 30 ? [255, 0, 0] : [0, 0, 255]));
  const quarter = corrected(image, { kind: 'turn', on: true, degrees: 90 });
  expect([quarter.width, quarter.height]).toEqual([40, 60]);
  // What was on the left lies on top.
  expect([at(quarter, 20, 5)[0], at(quarter, 20, 55)[2]]).toEqual([255, 255]);
  const slight = corrected(image, { kind: 'turn', on: true, degrees: 10 });
  expect(slight.width).toBeGreaterThan(60);
  expect([at(slight, 0, 0)[3], at(slight, slight.width / 2, slight.height / 2)[3]]).toEqual([0, 255]);
});

test('even light: a dark corner becomes as light as the rest, strokes keep their contrast', () => {
  const random = seeded(6);
  const light = (x: number, y: number): number => 1 - 0.6 / (1 + Math.exp(-(x + y - 520) / 40));
  const isInk = (x: number): boolean => Math.abs((x % 60) - 30) < 2;
  const image = picture(400, 300, (x, y) => {
    const v = (isInk(x) ? 110 : 235) * light(x, y) + 3 * random();
    return [v, v, v * 0.93];
  });
  const even = corrected(image, firstCorrections.light);
  const paper = [at(even, 5, 5)[0], at(even, 200, 150)[0], at(even, 395, 295)[0]];
  for (const v of paper) expect(Math.abs(v - 245)).toBeLessThan(14);
  expect(at(even, 390, 290)[0] / at(even, 395, 295)[0]).toBeCloseTo(110 / 235, 1);
});

test('a threshold leaves black and white; blur and median smooth what they should', () => {
  const random = seeded(9);
  const image = picture(80, 60, (x) => {
    const v = (x < 40 ? 90 : 200) + (random() < 0.04 ? 50 : 0);
    return [v, v, v];
  });
  const mask = corrected(image, { ...firstCorrections.threshold, method: 'global', level: 150 });
  expect(new Set(mask.data.filter((_, i) => i % 4 < 3))).toEqual(new Set([0, 255]));
  const clean = corrected(image, firstCorrections.denoise);
  const wrong = (im: RgbaImage): number => {
    let n = 0;
    for (let y = 2; y < 58; y++) for (let x = 2; x < 78; x++) if (at(im, x, y)[0] !== (x < 40 ? 90 : 200)) n++;
    return n;
  };
  expect(wrong(clean)).toBeLessThan(0.1 * wrong(image));
  const step = picture(80, 60, (x) => (x < 40 ? [100, 100, 100] : [200, 200, 200]));
  const soft = corrected(step, { kind: 'blur', on: true, radius: 4 });
  expect(Math.abs(at(soft, 40, 30)[0] - 152)).toBeLessThan(8);
  // A reduced picture is blurred as much less.
  const less = corrected(step, { kind: 'blur', on: true, radius: 4 }, 0.25);
  expect(at(less, 36, 30)[0]).toBe(100);
});

test('a run gives what the corrections give one by one, whichever of them changed', () => {
  const random = seeded(12);
  const image = picture(60, 50, () => [random() * 255, random() * 255, random() * 255]);
  const run = new CorrectionRun(image);
  const lists: Correction[][] = [
    [firstCorrections.denoise, firstCorrections.grey],
    [firstCorrections.denoise, { kind: 'levels', on: true, black: 20, white: 200, middle: 1.2 }, firstCorrections.grey],
    [{ ...firstCorrections.denoise, on: false }, firstCorrections.grey, firstCorrections.invert],
    [],
  ];
  for (const list of lists) {
    expect(run.after(list).data).toEqual(list.reduce((im, c) => corrected(im, c), image).data);
  }
});

test('grey, paper and tones count what is see-through as nothing', () => {
  const image = picture(2, 1, (x) => (x < 1 ? [200, 120, 40] : [0, 0, 0, 0]));
  expect([...greyOf(image).data]).toEqual([131, 255]);
  expect([...paperValues(image).data]).toEqual([40, 255]);
  const tones = toneHistogram(image);
  expect([tones[131], tones.reduce((a, b) => a + b)]).toEqual([1, 1]);
});

test('however often it is turned, a picture has a bounded number of pixels, and is where it was', () => {
  const image = rgbaImage(4_000, 3_000);
  const row = Uint8Array.from({ length: 4 * 4_000 }, (_, i) => [i < 2 * 4_000 ? 40 : 220, 0, 0, 255][i % 4]);
  for (let y = 0; y < 3_000; y++) image.data.set(row, y * row.length);
  const turns = Array.from({ length: 2 }, (): Correction => ({ kind: 'turn', on: true, degrees: 45 }));
  const run = new CorrectionRun(image);
  const after = run.after(turns);
  // Unbounded it would be four times as many as it began with.
  expect(after.width * after.height).toBeLessThanOrEqual(36_100_000);
  // What was at the left is above, amid a wide margin.
  const red = (share: number): number =>
    after.data[(Math.floor(after.height * share) * after.width + Math.floor(after.width / 2)) * 4];
  expect([red(0.48), red(0.52)]).toEqual([40, 220]);
});

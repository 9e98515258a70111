import { pageCorners, pullInk, threshold, type Correction } from '../src/core';
import { firstCorrections } from '../src/core/raster/correction';
import { corrected, CorrectionRun } from '../src/core/raster/correct';
import { rgbaImage } from '../src/core/raster/rgba';
import { paperPicture } from '../demo/readPicture';
import { measurePull } from '../demo/measurePull';
import { sketches } from '../demo/sketches';
import { shotOf } from '../src/server/simulated/pictures/shots';
import { snailPhoto, snailShot } from '../src/server/simulated/pictures/snailPhoto';
import { summary } from './statistics';

const SHOTS = 24;
const TOLERANCE = 1;
const round = (v: number, digits = 4): number => Math.round(v * 10 ** digits) / 10 ** digits;

function timed<T>(work: () => T): { result: T; ms: number } {
  const before = performance.now();
  const result = work();
  return { result, ms: Math.round(performance.now() - before) };
}

/** How well pictures are prepared, against the curves and corners that they were made from. Times are ms. */
export async function preparing(): Promise<unknown> {
  return { pullInk: await pulling(), pageCorners: await corners(), corrections: correcting() };
}

async function pulling(): Promise<unknown> {
  return (await sketches()).map(({ name, image, lines, scale: k }) => {
    const { result, ms } = timed(() => pullInk(image, { tolerance: TOLERANCE, mode: 'centre' }));
    const f = measurePull(result, lines, k);
    return {
      picture: name,
      tolerance: TOLERANCE,
      shareOfTrueLengthWithin1_5px: round(f.covered),
      shareOfPulledLengthWithoutInk: round(f.withoutInk),
      segments: f.segments,
      trueSegments: f.trueSegments,
      times: round(f.segments / f.trueSegments, 2),
      lines: f.runs,
      trueLines: f.trueRuns,
      ms,
    };
  });
}

/** How far the corners found lie from the true ones, px of a picture 2,000 px wide: the demo's photo, then others. */
async function corners(): Promise<unknown> {
  const errorOf = async (shot: typeof snailShot): Promise<number> => {
    const found = pageCorners(await paperPicture(await snailPhoto(shot)));
    const errors = found?.map((p, i) => Math.hypot(p.x - shot.corners[i].x, p.y - shot.corners[i].y));
    return errors ? (Math.max(...errors) * 2000) / shot.size.width : Infinity;
  };
  const errors: number[] = [];
  for (let n = 0; n < SHOTS; n++) errors.push(await errorOf(shotOf(n, { width: 1400, height: 1050 })));
  return {
    demoPhoto: round(await errorOf(snailShot), 2),
    variations: SHOTS,
    worst: round(Math.max(...errors), 2),
    ...summary(errors),
  };
}

/** An 8-megapixel picture corrected whole, and the reduced one that answers a slider. */
function correcting(): unknown {
  const list: Correction[] = [
    firstCorrections.straighten,
    firstCorrections.light,
    { kind: 'levels', on: true, black: 30, white: 220, middle: 1.1 },
  ];
  const of = (width: number, height: number) => {
    const image = rgbaImage(width, height);
    for (let i = 0; i < image.data.length; i++) image.data[i] = i % 4 === 3 ? 255 : 190 + ((i * 7919) % 60);
    return image;
  };
  const whole = of(3264, 2448);
  const reduced = of(1100, 825);
  const run = new CorrectionRun(reduced, 1100 / 3264);
  run.after(list);
  const moves = Array.from(
    { length: 20 },
    (_, i) =>
      timed(() => run.after([...list.slice(0, 2), { kind: 'levels', on: true, black: 30 + i, white: 220, middle: 1 }]))
        .ms,
  );
  const lights = Array.from(
    { length: 10 },
    (_, i) => timed(() => run.after([list[0], { kind: 'light', on: true, strength: i / 10 }, list[2]])).ms,
  );
  return {
    megapixels: (whole.width * whole.height) / 1e6,
    straightenLightLevelsWhole: timed(() => new CorrectionRun(whole).after(list)).ms,
    blurWhole: timed(() => corrected(whole, { kind: 'blur', on: true, radius: 3 })).ms,
    denoiseWhole: timed(() => corrected(whole, firstCorrections.denoise)).ms,
    previewOfLevels: summary(moves),
    previewOfLight: summary(lights),
    thresholdAdaptive: timed(() =>
      threshold({ width: 3264, height: 2448, data: new Uint8Array(3264 * 2448).fill(200) }, { method: 'adaptive' }),
    ).ms,
  };
}

import { rectify, type GrayImage } from '../src/core';
import type { TrueLine } from '../src/server/simulated/curves/path';
import { pearLines, pearPage } from '../src/server/simulated/curves/pear';
import { snailLines, snailPage } from '../src/server/simulated/curves/snail';
import { pearScan } from '../src/server/simulated/pictures/pearScan';
import { snailCorners } from '../src/server/simulated/pictures/snailPhoto';
import { greyPicture } from './readPicture';
import { keptPicture } from './keptPicture';
import { pictures } from './pictures';

/** A demo picture as it is worked on, and the curves that it was drawn from, at `scale` px a unit of theirs. */
export type Sketch = { name: string; image: GrayImage; lines: readonly TrueLine[]; scale: number };

/** Px a unit of the snail's page, once its photo is straightened. */
const SNAIL_SCALE = 1.5;

export async function snailSketch(): Promise<Sketch> {
  const size = { width: SNAIL_SCALE * snailPage.width, height: SNAIL_SCALE * snailPage.height };
  const image = await keptPicture('snail', async () =>
    rectify(await greyPicture(await pictures.snail()), [...snailCorners], size),
  );
  return { name: 'snail photo, rectified', image, lines: snailLines, scale: SNAIL_SCALE };
}

export async function pearSketch(width = 1748): Promise<Sketch> {
  const image = await keptPicture(`pear-${width}`, async () =>
    greyPicture(await pearScan({ width, height: Math.round((width * 2480) / 1748) })),
  );
  return { name: 'pear scan', image, lines: pearLines, scale: width / pearPage.width };
}

/** The pear's scan and the snail's photo, straightened by its corners. */
export const sketches = async (): Promise<Sketch[]> => [await pearSketch(), await snailSketch()];

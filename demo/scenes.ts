import type { Cubic, Point } from '../src/core';
import { runFromCubics } from '../src/core/drawing/fromCubics';
import { outlineHolds } from '../src/core/drawing/outline';
import type { ColourImage } from '../src/core/raster/colourImage';
import { distanceToCurves, walk } from '../src/core/test/strokes';
import { canInOrder } from '../src/server/simulated/curves/can';
import type { TrueLine } from '../src/server/simulated/curves/path';
import { potLines } from '../src/server/simulated/curves/pot';
import { pictures } from './pictures';
import { colourPicture } from './readPicture';

/** A photo, and the outlines of the things in it, from the back to the front. */
export type Scene = { name: string; image: ColourImage; things: readonly TrueLine[] };

export const canScene = async (): Promise<Scene> => ({
  name: 'watering can',
  image: await colourPicture(await pictures.can()),
  things: canInOrder,
});

export const potScene = async (): Promise<Scene> => ({
  name: 'clay pot',
  image: await colourPicture(await pictures.pot()),
  things: potLines,
});

/** Things in front hide what is this deep in them, px: beside their rims both are seen. */
const DEEP = 3;

/** Whether a place of a thing's outline is seen: nothing lies before it. */
export function seenIn({ things }: Scene, thing: TrueLine): (p: Point) => boolean {
  const before = things
    .slice(things.indexOf(thing) + 1)
    .map((t) => ({ t, outline: { runs: [runFromCubics(t.cubics, true)] } }));
  return (p) => !before.some(({ t, outline }) => outlineHolds(outline, p) || distanceToCurves(t.cubics, p) < DEEP);
}

/** How near those places of some curves that are seen lie to a thing's outline: the share that is near enough, 0…1, and all. */
export function nearShare(
  cubics: readonly Cubic[],
  { cubics: truth }: TrueLine,
  isSeen: (p: Point) => boolean,
  near: number,
) {
  const off = walk(cubics, 2)
    .filter(isSeen)
    .map((p) => distanceToCurves(truth, p));
  const places = Math.max(1, off.length);
  const mean = off.reduce((a, b) => a + b, 0) / places;
  return { near: off.filter((d) => d <= near).length / places, mean, most: Math.max(0, ...off), places };
}

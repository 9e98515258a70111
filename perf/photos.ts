import sharp from 'sharp';
import { pullShapes, settle } from '../src/core';
import { EdgeFollower } from '../src/core/assist/edgeFollower';
import { mapCubics } from '../src/core/geometry/cubic';
import { labPictureOf } from '../src/core/edges/labPicture';
import { seeded } from '../src/core/seeded';
import { walk } from '../src/core/test/strokes';
import { measureFollowEdges } from '../demo/measureFollowEdges';
import { disturbed } from '../src/core/test/disturbed';
import { colourPicture } from '../demo/readPicture';
import { canScene, nearShare, potScene, seenIn, type Scene } from '../demo/scenes';
import { potLines, potPage } from '../src/server/simulated/curves/pot';
import { potPhoto } from '../src/server/simulated/pictures/potPhoto';
import { onMadeUpPhotos } from './madeUpPhotos';
import { summary } from './statistics';

const SEEDS = [1, 2, 3];
const DISTURBED = 6;
const REACH = 10;
const LARGE = { width: 3264, height: 2448 };
const round = (v: number, digits = 4): number => Math.round(v * 10 ** digits) / 10 ** digits;
const msOf = (work: () => unknown): number => {
  const start = performance.now();
  work();
  return Math.round(performance.now() - start);
};

/** How true lines over photos come to lie, against the outlines that these were painted from; and how long it takes. Times are ms. */
export async function photos(): Promise<unknown> {
  const scenes = [await canScene(), await potScene()];
  return {
    settle: scenes.map(settled),
    follow: scenes.map(followed),
    madeUp: await onMadeUpPhotos(25),
    large: await large(),
  };
}

function settled(scene: Scene): unknown {
  let [near, before, places, further] = [0, 0, 0, 0];
  for (const thing of scene.things)
    for (const seed of SEEDS) {
      const isSeen = seenIn(scene, thing);
      const start = { cubics: disturbed(thing.cubics, thing.closed, DISTURBED, seeded(seed)), closed: thing.closed };
      const run = settle(start, scene.image, { reach: REACH, target: 'edge' });
      const [was, is] = [start, run].map((r) => nearShare(r.cubics, thing, isSeen, 1));
      near += is.near * is.places;
      before += was.near * was.places;
      places += is.places;
      if (is.mean > was.mean) further++;
    }
  return { picture: scene.name, within1px: round(near / places), before: round(before / places), further };
}

const followed = (scene: Scene): unknown => ({
  picture: scene.name,
  figures: SEEDS.map((seed) => {
    const f = measureFollowEdges(scene, seed);
    return { ...f, near: round(f.near), times: round(f.segments / f.trueSegments, 2) };
  }),
});

/** A photo of 8 megapixels: made ready, followed place by place, pulled apart into shapes. */
async function large(): Promise<unknown> {
  const image = await colourPicture(
    await sharp(await potPhoto())
      .resize(LARGE.width, LARGE.height)
      .toBuffer(),
  );
  let follower: EdgeFollower | null = null;
  const ready = msOf(() => {
    labPictureOf(image);
    follower = new EdgeFollower(image);
  });
  const k = LARGE.width / potPage.width;
  const random = seeded(3);
  const moves: number[] = [];
  for (const { cubics } of potLines) {
    const way = walk(
      mapCubics(cubics, (p) => ({ x: p.x * k, y: p.y * k })),
      2,
    );
    for (let at = 0; at + 100 < way.length; at += 100)
      for (let i = 1; i <= 12; i++) {
        const p = way[at + Math.round((100 * i) / 12)];
        const to = { x: p.x + 6 * (random() - 0.5), y: p.y + 6 * (random() - 0.5) };
        const start = performance.now();
        follower!.path(way[at], to);
        moves.push(performance.now() - start);
      }
  }
  const shapes = msOf(() => pullShapes(image, { colours: 8, smallest: 400, tolerance: 2 }));
  return { megapixels: round((LARGE.width * LARGE.height) / 1e6, 1), ready, move: summary(moves), shapes };
}

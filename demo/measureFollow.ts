import type { Cubic, GrayImage, Point } from '../src/core';
import { InkFollower } from '../src/core/assist/inkFollower';
import { cubicLength } from '../src/core';
import { evaluate } from '../src/core/geometry/cubic';
import { seeded } from '../src/core/seeded';
import { distanceToCurves, walk } from '../src/core/test/strokes';
import type { TrueLine } from '../src/server/simulated/curves/path';

/** How true a pen that follows the ink stays to the curves that a picture was drawn from. Shares are of length, 0…1. */
export type FollowFigures = {
  near: number;
  nearAtCrossings: number;
  presses: number;
  segments: number;
  trueSegments: number;
  moves: number[];
};

/** A followed curve this near to the true one is on it, px. */
const NEAR = 1.5;
/** So many moves of the hand from press to press. */
const MOVES = 12;
/** Within this of another line a place is at a crossing, px. */
const CROSSING = 25;

/** Traces every true line with a press each 150 to 300 px, a hand's breadth of 3 px beside it, by way of moves between. */
export function measureFollow(
  image: GrayImage,
  lines: readonly TrueLine[],
  scale: number,
  seed: number,
  movesEach = MOVES,
): FollowFigures {
  const random = seeded(seed);
  const follower = new InkFollower(image);
  const truth = lines.map((l) => l.cubics.map((c) => c.map((p) => ({ x: p.x * scale, y: p.y * scale })) as Cubic));
  const f: FollowFigures = { near: 0, nearAtCrossings: 0, presses: 0, segments: 0, trueSegments: 0, moves: [] };
  let [length, atCrossings] = [0, 0];
  truth.forEach((cubics, own) => {
    const places = walk(cubics, 2);
    const total = cubics.reduce((sum, c) => sum + cubicLength(c), 0);
    if (total < 60) return;
    f.trueSegments += cubics.length;
    let at = 0;
    let from = places[0];
    while (at < places.length - 1) {
      const next = Math.min(places.length - 1, at + Math.round((150 + 150 * random()) / 2));
      const aim = (i: number): Point => ({
        x: places[i].x + (random() - 0.5) * 4,
        y: places[i].y + (random() - 0.5) * 4,
      });
      let path: Cubic[] | null = null;
      for (let k = 1; k <= movesEach; k++) {
        const to = aim(Math.round(at + ((next - at) * k) / movesEach));
        const start = performance.now();
        path = follower.path(from, to);
        f.moves.push(performance.now() - start);
      }
      const drawn = path ?? [[from, from, places[next], places[next]] as Cubic];
      f.presses++;
      f.segments += drawn.length;
      for (const p of walk(drawn, 2)) {
        const isNear = distanceToCurves(cubics, p) <= NEAR;
        length++;
        if (isNear) f.near++;
        if (truth.some((t, i) => i !== own && distanceToCurves(t, p) < CROSSING)) {
          atCrossings++;
          if (isNear) f.nearAtCrossings++;
        }
      }
      const last = drawn.at(-1)!;
      from = evaluate(last, 1);
      at = next;
    }
  });
  f.near /= length;
  f.nearAtCrossings /= atCrossings || 1;
  return f;
}

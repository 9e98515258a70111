import { follow, selfIntersection, intersectCubics, type Cubic, type Point } from '../src/core';
import { evaluate } from '../src/core/geometry/cubic';
import { seeded } from '../src/core/seeded';
import { distanceToCurves, walk } from '../src/core/test/strokes';
import type { TrueLine } from '../src/server/simulated/curves/path';
import { seenIn, type Scene } from './scenes';

/** How true a line that follows edges is to the outlines of things. Shares are of length, 0…1; numbers are sums. */
export type EdgeFigures = {
  near: number;
  segments: number;
  trueSegments: number;
  crossings: number;
  kinks: number;
  lost: number;
};

const NEAR = 1.5;
/** Stretches of outlines that are seen count from this length on, px. */
const LEAST = 120;
/** A joint that turns more than this is a corner, degrees; one of the outline's lies within so much, px. */
const KINK = 35;
const AT = 8;
const AROUND = 30;

/** The stretches of a thing's outline that are seen, each as places 2 px apart. */
export function seenStretches(scene: Scene, thing: TrueLine): Point[][] {
  const isSeen = seenIn(scene, thing);
  const places = walk(thing.cubics, 2);
  const first = places.findIndex((p) => !isSeen(p));
  const turned = first < 0 ? places : [...places.slice(first), ...places.slice(0, first)];
  const stretches: Point[][] = [[]];
  for (const p of turned) {
    if (isSeen(p)) stretches.at(-1)!.push(p);
    else if (stretches.at(-1)!.length > 0) stretches.push([]);
  }
  return stretches.filter((s) => 2 * s.length > LEAST);
}

/** Follows all that is seen of a scene's outlines by a hand that strays up to 3 px. */
export function measureFollowEdges(scene: Scene, seed: number): EdgeFigures {
  const random = seeded(seed);
  const f: EdgeFigures = { near: 0, segments: 0, trueSegments: 0, crossings: 0, kinks: 0, lost: 0 };
  let places = 0;
  for (const thing of scene.things)
    for (const stretch of seenStretches(scene, thing)) {
      const way = stretch
        .filter((_, i) => i % 5 === 0)
        .map((p) => ({ x: p.x + 6 * (random() - 0.5), y: p.y + 6 * (random() - 0.5) }));
      f.trueSegments += segmentsAlong(thing, stretch);
      const found = tried(() => follow(scene.image, way, { target: 'edge' }));
      if (!found) {
        f.lost++;
        places += stretch.length;
        continue;
      }
      const off = walk(found, 2).map((p) => distanceToCurves(thing.cubics, p));
      f.near += off.filter((d) => d <= NEAR).length;
      places += off.length;
      f.segments += found.length;
      f.crossings += crossingsOf(found, stretch[0]);
      f.kinks += kinksOf(found).filter(
        (p) => !cornersOf(thing).some((c) => Math.hypot(c.x - p.x, c.y - p.y) < AT),
      ).length;
    }
  f.near /= places;
  return f;
}

const tried = <T>(make: () => T): T | null => {
  try {
    return make();
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
};

/** How many of a thing's segments a stretch of its outline runs along. */
const segmentsAlong = (thing: TrueLine, stretch: readonly Point[]): number =>
  thing.cubics.filter((c) => stretch.filter((p) => distanceToCurves([c], p) < 0.5).length > 5).length;

/** How often curves cross themselves; where one that has gone around comes to its start again is none. */
const crossingsOf = (cubics: readonly Cubic[], start: Point): number =>
  cubics.reduce((n, c, i) => {
    const later = cubics.slice(i + 1).flatMap((d, k) =>
      intersectCubics(c, d).filter(({ ta, tb, point }) => {
        const isJoint = k === 0 && ta > 0.999 && tb < 0.001;
        return !isJoint && Math.hypot(point.x - start.x, point.y - start.y) > AROUND;
      }),
    );
    return n + later.length + (selfIntersection(c) ? 1 : 0);
  }, 0);

const turnAt = (a: Cubic, b: Cubic): number => {
  const [p, q] = [evaluate(a, 0.98), evaluate(b, 0.02)];
  const [u, v] = [Math.atan2(a[3].y - p.y, a[3].x - p.x), Math.atan2(q.y - b[0].y, q.x - b[0].x)];
  return Math.abs(Math.atan2(Math.sin(v - u), Math.cos(v - u))) * (180 / Math.PI);
};

const kinksOf = (cubics: readonly Cubic[]): Point[] =>
  cubics.slice(1).flatMap((c, i) => (turnAt(cubics[i], c) > KINK ? [c[0]] : []));
const cornersOf = ({ cubics }: TrueLine): Point[] =>
  cubics.flatMap((c, i) => (turnAt(cubics[(i + cubics.length - 1) % cubics.length], c) > 20 ? [c[0]] : []));

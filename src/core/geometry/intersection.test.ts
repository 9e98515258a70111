import fc from 'fast-check';
import { sampledCrossings } from '../test/bruteForce';
import { randomCubics } from '../test/randomCubics';
import { seeded } from '@/core/seeded';
import { cubicAt, derivative, pieceOf, reversed, splitCubic, straightCubic, type Cubic } from './cubic';
import { intersectCubics, type Intersection } from './intersection';
import { add, distance, dot, point, scale, subtract, unit, type Point } from './point';
import { selfIntersection } from './selfIntersection';

/** Every place given lies on both curves: nothing is invented. */
function expectReal(a: Cubic, b: Cubic, found: Intersection[]) {
  for (const { ta, tb, point: p } of found) {
    expect(ta >= 0 && ta <= 1 && tb >= 0 && tb <= 1).toBe(true);
    expect(distance(cubicAt(a, ta), cubicAt(b, tb))).toBeLessThan(1e-6);
    expect(distance(cubicAt(a, ta), p)).toBeLessThan(1e-6);
  }
}

const near = (found: Intersection[], p: Point, within = 1e-6) => found.filter((f) => distance(f.point, p) < within);

describe('against brute force', () => {
  test('320 seeded pairs, degenerate ones included: none missed, none invented, none twice', () => {
    const cubics = randomCubics(4711, 640);
    let crossings = 0;
    for (let i = 0; i < cubics.length; i += 2) {
      const [a, b] = [cubics[i].cubic, cubics[i + 1].cubic];
      const found = intersectCubics(a, b);
      expectReal(a, b, found);
      const truth = sampledCrossings(a, b);
      for (const t of truth) {
        const reached = near(found, t.point, t.sine > 1e-4 ? 1e-6 : 1e-3).length;
        expect({ i, families: [cubics[i].family, cubics[i + 1].family], reached: reached > 0 }).toEqual({
          i,
          families: [cubics[i].family, cubics[i + 1].family],
          reached: true,
        });
      }
      const places = found.filter((f, k) => found.findIndex((g) => distance(f.point, g.point) < 1e-6) === k);
      expect({ i, found: places.length }).toEqual({ i, found: truth.length });
      crossings += truth.length;
    }
    expect(crossings).toBeGreaterThan(150);
  });

  test('curves that touch without crossing: found once, and not when moved 1e-5 apart', () => {
    const random = seeded(99);
    const cubics = randomCubics(815, 600).filter((c) => c.family === 'ordinary' || c.family === 'gentle');
    let touched = 0;
    for (const { cubic: a } of cubics.slice(0, 150)) {
      const t = 0.15 + 0.7 * random();
      const at = cubicAt(a, t);
      const along = unit(derivative(a, t))!;
      const across = point(-along.y, along.x);
      // A parabola-like arc that touches `a` at t, bent to the other side more sharply than `a` is there.
      const side = curvatureSide(a, t) > 0 ? -1 : 1;
      const arm = (k: number, h: number) => add(add(at, scale(along, k)), scale(across, h * side));
      const b: Cubic = [arm(-60, 90), arm(-20, -30), arm(20, -30), arm(60, 90)];
      const found = near(intersectCubics(a, b), at, 1e-4);
      expect(found).toHaveLength(1);
      expect(distance(found[0].point, at)).toBeLessThan(1e-6);
      const moved = b.map((p) => add(p, scale(across, 1e-5 * side))) as Cubic;
      expect(near(intersectCubics(a, moved), at, 1e-3)).toHaveLength(0);
      const pushed = b.map((p) => add(p, scale(across, -1e-5 * side))) as Cubic;
      expect(near(intersectCubics(a, pushed), at, 0.05)).toHaveLength(2);
      touched++;
    }
    expect(touched).toBeGreaterThan(100);
  });
});

function curvatureSide(c: Cubic, t: number): number {
  const [p, q] = [derivative(c, t - 1e-4), derivative(c, t + 1e-4)];
  return p.x * q.y - p.y * q.x;
}

describe('what hand-drawn lines bring', () => {
  const arch: Cubic = [point(0, 0), point(30, -80), point(70, -80), point(100, 0)];

  test('a shared end is one place', () => {
    const next: Cubic = [point(100, 0), point(130, 80), point(150, 80), point(200, 0)];
    expect(intersectCubics(arch, next)).toEqual([{ ta: 1, tb: 0, point: point(100, 0) }]);
  });

  test('a smooth continuation meets at its joint alone', () => {
    const [left, right] = splitCubic(arch, 0.37);
    const found = intersectCubics(left, right);
    expect(found).toHaveLength(1);
    expect(found[0].ta).toBe(1);
    expect(found[0].tb).toBe(0);
  });

  test('an end on the middle of the other', () => {
    const on = cubicAt(arch, 0.3);
    const stem = straightCubic(on, point(20, 100));
    const found = intersectCubics(arch, stem);
    expect(near(found, on)).toHaveLength(1);
    expect(near(found, on)[0].tb).toBe(0);
  });

  test('the same curve, and a stretch of it, give the two ends of what is shared', () => {
    expect(intersectCubics(arch, arch).map(({ ta, tb }) => [ta, tb])).toEqual([
      [0, 0],
      [1, 1],
    ]);
    const found = intersectCubics(arch, reversed(pieceOf(arch, 0.25, 0.75)));
    expect(found).toHaveLength(2);
    expect(found[0].ta).toBeCloseTo(0.25, 9);
    expect(found[1].ta).toBeCloseTo(0.75, 9);
  });

  test('straight segments in one line', () => {
    const a = straightCubic(point(0, 0), point(100, 50));
    const b = straightCubic(point(50, 25), point(200, 100));
    expect(intersectCubics(a, b).map((f) => f.point)).toEqual([point(50, 25), point(100, 50)]);
    expect(intersectCubics(a, straightCubic(point(102, 51), point(200, 100)))).toEqual([]);
  });

  test('a single point on a curve and beside it', () => {
    const p = cubicAt(arch, 0.6);
    expect(intersectCubics(arch, [p, p, p, p])).toHaveLength(1);
    expect(intersectCubics(arch, straightCubic(point(0, 9), point(0, 9)))).toEqual([]);
  });

  test('two crossings at the double point of a loop are both given', () => {
    const loop: Cubic = [point(0, 0), point(140, 100), point(-40, 100), point(100, 0)];
    const own = selfIntersection(loop)!;
    const through = straightCubic(add(own.point, point(-20, 3)), add(own.point, point(25, -3.75)));
    const found = near(intersectCubics(through, loop), own.point);
    expect(found.map((f) => f.tb).sort()).toEqual([expect.closeTo(own.t1, 6), expect.closeTo(own.t2, 6)]);
  });
});

test('the order of the curves does not matter', () => {
  const cubics = randomCubics(31, 80);
  for (let i = 0; i < 80; i += 2) {
    const [a, b] = [cubics[i].cubic, cubics[i + 1].cubic];
    expect(intersectCubics(b, a)).toHaveLength(intersectCubics(a, b).length);
  }
});

describe('a curve with itself', () => {
  test('every loop of 400 seeded cubics is found, and no other', () => {
    let loops = 0;
    for (const { family, cubic } of randomCubics(5, 400)) {
      const own = selfIntersection(cubic);
      if (own) {
        loops++;
        expect(own.t1).toBeLessThan(own.t2);
        expect(distance(cubicAt(cubic, own.t1), cubicAt(cubic, own.t2))).toBeLessThan(1e-6);
      }
      if (family.startsWith('straight') || family === 'a single point' || family === 'handles on one point') continue;
      // Four quarters: crossings of two that are not neighbours' joints.
      const cuts = [0, 0.27, 0.52, 0.74, 1];
      const quarters = cuts.slice(1).map((to, k) => pieceOf(cubic, cuts[k], to));
      const crossings = quarters.flatMap((a, k) =>
        quarters.slice(k + 1).flatMap((b) => sampledCrossings(a, b, 300).filter((f) => f.sine > 1e-3)),
      );
      const joints = cuts.slice(1, 4).map((t) => cubicAt(cubic, t));
      const truth = crossings.filter((f) => joints.every((j) => distance(j, f.point) > 1e-3));
      if (truth.length > 0) {
        expect({ family, found: own !== null && distance(own.point, truth[0].point) < 1e-6 }).toEqual({
          family,
          found: true,
        });
      } else if (own && own.t2 - own.t1 > 0.5) {
        expect(joints.some((j) => distance(j, own.point) < 1e-2) || family === 'closed on itself').toBe(true);
      }
    }
    expect(loops).toBeGreaterThan(40);
  });

  test('turning, moving and scaling a curve leaves its crossing at the same parameters', () => {
    const loop: Cubic = [point(0, 0), point(140, 100), point(-40, 100), point(100, 0)];
    const own = selfIntersection(loop)!;
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 7, noNaN: true }),
        (k, turn) => {
          const [x, y] = [point(Math.cos(turn), Math.sin(turn)), point(-Math.sin(turn), Math.cos(turn))];
          const moved = loop.map((p) => add(point(7, 9), scale(point(dot(p, x), dot(p, y)), k))) as Cubic;
          const again = selfIntersection(moved)!;
          expect(again.t1).toBeCloseTo(own.t1, 9);
          expect(again.t2).toBeCloseTo(own.t2, 9);
        },
      ),
    );
  });

  test('a cusp, an arch and a straight line do not cross themselves', () => {
    expect(selfIntersection([point(0, 0), point(100, 100), point(0, 100), point(100, 0)])).toBeNull();
    expect(selfIntersection([point(0, 0), point(30, 80), point(70, 80), point(100, 0)])).toBeNull();
    expect(selfIntersection(straightCubic(point(0, 0), subtract(point(5, 5), point(0, 1))))).toBeNull();
  });
});

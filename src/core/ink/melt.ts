import paper from 'paper/dist/paper-core';
import { cubicAt, derivative, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { add, distance, scale, subtract, unit, type Point } from '../geometry/point';
import { seeded } from '../seeded';
import { withoutSpikes } from './spikes';
import { isWithin, windingAround } from '../geometry/polygon';
import { growBox } from '../geometry/box';
import { hullBox } from '../geometry/bounds';

/**
 * Closed outlines for the nonzero rule made into what they cover: outlines that cross neither themselves nor each other,
 * holes running the other way. The curves themselves are cut and put together anew, so that nothing is fitted twice
 * (paper's boolean operations on cubics).
 */
export function melted(outlines: readonly (readonly Cubic[])[]): Cubic[][] {
  const given = outlines.filter((o) => o.length > 0);
  if (given.length === 0) return [];
  let best: { united: Cubic[][]; faults: number } | null = null;
  for (const by of MOVES) {
    let united = unite(by === 0 ? given : given.map((o, i) => moved(o, by, i)));
    for (let again = 0; again < 2; again++) {
      if (again > 0) united = unite(united);
      const faults = faultsOf(given, united);
      if (!best || faults < best.faults) best = { united, faults };
      if (faults === 0) return united;
    }
  }
  return best!.united;
}

/** What the first outlines cover and the others do not, both for the nonzero rule. */
export function without(outlines: readonly (readonly Cubic[])[], taken: readonly (readonly Cubic[])[]): Cubic[][] {
  if (outlines.length === 0 || taken.length === 0) return outlines.map((o) => [...o]);
  return outlinesIn(shapeOf(outlines).subtract(shapeOf(taken), { insert: false }) as paper.PathItem);
}

function unite(outlines: readonly (readonly Cubic[])[]): Cubic[][] {
  const nothing = new (theScope().Path)({ insert: false });
  return outlinesIn(shapeOf(outlines).unite(nothing, { insert: false }) as paper.PathItem);
}

function shapeOf(outlines: readonly (readonly Cubic[])[]): paper.CompoundPath {
  const scope = theScope();
  const shape = new scope.CompoundPath({ insert: false, fillRule: 'nonzero' });
  for (const outline of outlines) {
    const path = new scope.Path({ insert: false });
    path.moveTo(pair(outline[0][0]));
    for (const [, b, c, d] of outline) path.cubicCurveTo(pair(b), pair(c), pair(d));
    path.closePath();
    shape.addChild(path);
  }
  return shape;
}

function outlinesIn(item: paper.PathItem): Cubic[][] {
  const paths = (item instanceof theScope().CompoundPath ? item.children : [item]) as paper.Path[];
  return paths
    .map((p) => p.curves.map((k) => [k.point1, k.point1.add(k.handle1), k.point2.add(k.handle2), k.point2].map(plain)))
    .map((o) => withoutSpikes(o as Cubic[], EXACT).map(withoutHandles))
    .filter((o) => o.length > 0 && !isSliver(o));
}

/** What is thinner throughout than the operation is exact. */
function isSliver(outline: readonly Cubic[]): boolean {
  const polygon = polygonOf(outline);
  const around = polygon.reduce((sum, p, i) => sum + distance(p, polygon[(i + 1) % polygon.length]), 0);
  return Math.abs(areaOf(polygon)) < (ON_EDGE * around) / 4;
}

/** Edges that lie on each other can go wrong in the operation: then their ends are moved by so much, page units. */
const MOVES = [0, 1e-3, 4e-3, 1e-2];
/** A place this near to an edge is on it. */
const ON_EDGE = 0.02;
/** The operation is as exact as this. */
const EXACT = 1e-3;
/** What lies beside an edge is looked at from so far, by polygons so fine. */
const [BESIDE, FINE] = [0.05, 0.01];

/** An edge that is lost is worse than so many that are too much. */
const LOSS = 1000;

function faultsOf(given: readonly (readonly Cubic[])[], united: readonly Cubic[][]): number {
  const windingAt = windingOf(united);
  return lostOf(given, united, windingAt) * LOSS + withinOf(united, windingAt);
}

type Winding = (p: Point) => number;

/** How many edges of outlines are lost: neither within others, nor on their edge. */
function lostOf(outlines: readonly (readonly Cubic[])[], others: readonly Cubic[][], windingAt: Winding): number {
  const rims = others.flat().map((cubic) => ({ cubic, box: growBox(hullBox(cubic), ON_EDGE) }));
  return outlines.flat().filter((c) => {
    const p = cubicAt([...c], 0.5);
    if (windingAt(p) !== 0) return false;
    return !rims.some(({ cubic, box }) => {
      const isNear = p.x >= box.minX && p.x <= box.maxX && p.y >= box.minY && p.y <= box.maxY;
      return isNear && nearestOnCubic(cubic, p).distance <= ON_EDGE;
    });
  }).length;
}

/** How many edges have ink on both sides: slits, and edges that go there and back. */
function withinOf(outlines: readonly Cubic[][], windingAt: Winding): number {
  return outlines.flat().filter((c) => {
    const direction = unit(derivative(c, 0.5)) ?? unit(subtract(c[3], c[0]));
    if (!direction) return false;
    const [p, across] = [cubicAt(c, 0.5), scale({ x: -direction.y, y: direction.x }, BESIDE)];
    return windingAt(add(p, across)) !== 0 && windingAt(subtract(p, across)) !== 0;
  }).length;
}

/** How often outlines go round a place, by polygons that keep within a fraction of `ON_EDGE`. */
function windingOf(outlines: readonly (readonly Cubic[])[]): Winding {
  const polygons = outlines.map((o) => {
    const polygon = o.flatMap((c) => {
      const n = Math.max(1, Math.ceil(Math.sqrt((0.75 * bowOf(c)) / FINE)));
      return Array.from({ length: n }, (_, i) => cubicAt([...c], i / n));
    });
    const ys = polygon.map((p) => p.y);
    return { polygon, top: Math.min(...ys), bottom: Math.max(...ys) };
  });
  return (p) =>
    polygons.reduce(
      (n, { polygon, top, bottom }) => (p.y < top || p.y > bottom ? n : n + windingAround(polygon, p)),
      0,
    );
}

/** A sixth of the largest second derivative of a cubic, which bounds how far its chords are from it. */
const bowOf = ([a, b, c, d]: Cubic): number =>
  Math.max(Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y), Math.hypot(b.x - 2 * c.x + d.x, b.y - 2 * c.y + d.y));

/** An outline whose corners are a little off, each to another side; handles go with them. */
function moved(outline: readonly Cubic[], by: number, seed: number): Cubic[] {
  const random = seeded(seed + 1);
  const off = outline.map(() => ({ x: (random() - 0.5) * by, y: (random() - 0.5) * by }));
  return outline.map(([a, b, c, d], i): Cubic => {
    const [p, q] = [off[i], off[(i + 1) % off.length]];
    return [add(a, p), add(b, p), add(c, q), add(d, q)];
  });
}

let scope: paper.PaperScope | null = null;

/** Paper keeps what it works on in a scope; this one has no page. */
function theScope(): paper.PaperScope {
  if (!scope) {
    scope = new paper.PaperScope();
    scope.setup(new scope.Size(1, 1));
  }
  return scope;
}

const pair = ({ x, y }: Point): [number, number] => [x, y];
const plain = ({ x, y }: paper.Point): Point => ({ x, y });

/** The cubic of a curve; a straight one has no handles. */
function withoutHandles([a, b, c, d]: Cubic): Cubic {
  const off = (p: Point): number => Math.abs((d.x - a.x) * (p.y - a.y) - (d.y - a.y) * (p.x - a.x));
  const isStraight = Math.max(off(b), off(c)) <= 1e-6 * distance(a, d);
  return isStraight ? [a, a, d, d] : [a, b, c, d];
}

/** Outlines that do not cross, as shapes: each with the holes that lie in it. */
export function shapesOf(outlines: readonly Cubic[][]): Cubic[][][] {
  const known = outlines
    .map((cubics) => ({ cubics, polygon: polygonOf(cubics) }))
    .map((o) => ({ ...o, area: areaOf(o.polygon) }));
  const largest = known.reduce((a, b) => (Math.abs(b.area) > Math.abs(a.area) ? b : a), known[0]);
  const outers = known.filter((o) => Math.sign(o.area) === Math.sign(largest?.area ?? 1));
  const shapes = new Map(outers.map((o) => [o, [o.cubics]]));
  for (const hole of known) {
    if (shapes.has(hole)) continue;
    const around = outers
      .filter((o) => isWithin(hole.polygon[0], o.polygon))
      .reduce<(typeof outers)[number] | null>((a, b) => (!a || Math.abs(b.area) < Math.abs(a.area) ? b : a), null);
    if (around) shapes.get(around)!.push(hole.cubics);
  }
  return [...shapes.values()];
}

/** The number of the shape that a place lies in, or on the rim of; -1 where there is none. */
export function shapeAt(shapes: readonly (readonly Cubic[])[][], p: Point): number {
  const within = shapes.findIndex((s) => s.filter((o) => isWithin(p, polygonOf(o))).length % 2 === 1);
  if (within >= 0) return within;
  const off = shapes.map((s) => Math.min(...s.flat().map((c) => nearestOnCubic([...c], p).distance)));
  return off.indexOf(Math.min(...off));
}

const polygonOf = (cubics: readonly Cubic[]): Point[] =>
  cubics.flatMap((c) => [0, 0.25, 0.5, 0.75].map((t) => cubicAt(c, t)));

const areaOf = (polygon: readonly Point[]): number =>
  polygon.reduce((sum, p, i) => {
    const q = polygon[(i + 1) % polygon.length];
    return sum + p.x * q.y - q.x * p.y;
  }, 0) / 2;

import { LEAST_WEIGHT, powersOf, weightAlong } from './freeCubic';
import { Normal } from './normal';
import type { Samples } from './samples';
import { Skyline } from './skyline';
import { controlsOf, copyOf, endNode, project, segmentsOf, type Spline } from './spline';

/** Where each unknown of a node stands in the system; a smooth node's way in is its way out. */
type Places = { x: number; wayIn: number; wayOut: number; lengthIn: number; lengthOut: number };

const CORNER_PIN = 1;
const JOINT_PIN = 0.05;

const share = new Normal();

/**
 * Moves all nodes, directions and handle lengths of a chain at once to where the points lie nearest, by Gauss and
 * Newton's steps on the distances across the curve (tangent distance: Wang, Pottmann and Liu 2006), damped as by
 * Levenberg and Marquardt. An open chain's ends stay at the stroke's ends. Where `active` is given, only what lies
 * between segments in it is moved. `pin` is how strongly a smooth node is drawn to the place of its cut. Linear in the points and nodes that are. Gives whether it was still gaining when its
 * rounds were over.
 */
export function relax(
  sp: Spline,
  s: Samples,
  rounds: number,
  noise = 0,
  active?: readonly boolean[],
  pin = JOINT_PIN,
): boolean {
  const layout = layoutOf(sp, active ?? sp.cuts.slice(1).map(() => true));
  const along = arcLengths(s);
  const equations = () => normalEquations(sp, s, layout, waysOf(sp, s, along), noise, pin);
  boundHandles(sp, waysOf(sp, s, along));
  project(sp, s, 2, active);
  let damping = 1e-3;
  let now = equations();
  for (let round = 0; round < rounds; round++) {
    const kept = copyOf(sp);
    for (let i = 0; i < now.right.length; i++)
      now.system.add(i, i, damping * now.system.diagonal(i) + 1e-9 * (1 + damping));
    if (!now.system.solve(now.right)) return false;
    step(sp, layout, now.right, waysOf(sp, s, along));
    project(sp, s, 2, active);
    const then = equations();
    if (then.sum <= now.sum) {
      const settled = now.sum - then.sum < 2e-3 * now.sum + 1e-12 * s.n;
      damping = Math.max(1e-6, damping / 5);
      now = then;
      if (settled) return false;
    } else {
      restore(sp, kept);
      if (damping > 1e3) return false;
      damping = Math.max(1e-3, damping * 20);
      now = equations();
    }
  }
  return true;
}

const movable = ['x', 'y', 'wayIn', 'wayOut', 'lengthIn', 'lengthOut', 'cuts'] as const;

function restore(sp: Spline, kept: Spline): void {
  for (const name of movable) sp[name].splice(0, Infinity, ...kept[name]);
  sp.ts.set(kept.ts);
}

type Layout = { places: Places[]; first: Int32Array; active: readonly boolean[] };

/** A node between segments that are all active has its unknowns; any other stays, and its places are below 0. */
function layoutOf(sp: Spline, active: readonly boolean[]): Layout {
  const count = segmentsOf(sp);
  const begins: number[] = [];
  let at = 0;
  const places = sp.x.map((_, node): Places => {
    begins.push(at);
    const p: Places = { x: -1, wayIn: -1, wayOut: -1, lengthIn: -1, lengthOut: -1 };
    const hasIn = sp.closed || node > 0;
    const hasOut = sp.closed || node < sp.x.length - 1;
    const isFree = (!hasIn || active[(node - 1 + count) % count]) && (!hasOut || active[node]);
    if (!isFree) return p;
    p.x = at;
    at += 2;
    if (hasIn) {
      p.wayIn = at++;
      p.lengthIn = at++;
    }
    if (hasOut) {
      p.wayOut = hasIn && !sp.corner[node] ? p.wayIn : at++;
      p.lengthOut = at++;
    }
    return p;
  });
  const first = new Int32Array(at);
  const last = sp.x.length - 1;
  begins.forEach((begin, node) => {
    const from = sp.closed && node === last ? 0 : begins[Math.max(0, node - 1)];
    for (let i = begin; i < (begins[node + 1] ?? at); i++) first[i] = from;
  });
  return { places, first, active };
}

function normalEquations(
  sp: Spline,
  s: Samples,
  { places, first, active }: Layout,
  ways: number[],
  noise: number,
  pin: number,
) {
  const system = new Skyline(first);
  const right = new Float64Array(first.length);
  let sum = 0;
  for (let k = 0; k < segmentsOf(sp); k++) {
    if (!active[k]) continue;
    const e = endNode(sp, k);
    share.clear();
    sum += gather(sp, s, k, e);
    const [a, b] = [places[k], places[e]];
    const index = [
      a.x,
      a.x < 0 ? -1 : a.x + 1,
      a.wayOut,
      a.lengthOut,
      b.x,
      b.x < 0 ? -1 : b.x + 1,
      b.wayIn,
      b.lengthIn,
    ];
    for (let i = 0; i < 8; i++) {
      if (index[i] < 0) continue;
      right[index[i]] += share.right[i];
      for (let j = 0; j <= i; j++) {
        if (index[j] < 0) continue;
        const value = share.matrix[8 * i + j];
        const [hi, lo] = index[i] >= index[j] ? [index[i], index[j]] : [index[j], index[i]];
        // A segment from a node to itself meets each pair of its unknowns twice.
        system.add(hi, lo, hi === lo && i !== j ? 2 * value : value);
      }
    }
  }
  sum += pinNodes(sp, s, places, system, right, pin) + drawHandles(sp, places, ways, noise, system, right);
  return { system, right, sum };
}

/**
 * Draws each node a little to the sample at its cut. Across the curve the points hold it, but along it nothing would:
 * two nearly parallel ways could meet far beyond their points.
 */
function pinNodes(sp: Spline, s: Samples, places: Places[], system: Skyline, right: Float64Array, pin: number): number {
  let sum = 0;
  for (let node = sp.closed ? 0 : 1; node < segmentsOf(sp); node++) {
    if (places[node].x < 0) continue;
    const w = sp.corner[node] ? CORNER_PIN : pin;
    const i = sp.cuts[node] % s.n;
    const gaps = [s.x[i] - sp.x[node], s.y[i] - sp.y[node]];
    gaps.forEach((gap, axis) => {
      const at = places[node].x + axis;
      system.add(at, at, w * w);
      right[at] += w * w * gap;
      sum += w * w * gap * gap;
    });
  }
  return sum;
}

/** Adds up a segment's share of the normal equations; gives the sum of the squared gaps. */
function gather(sp: Spline, s: Samples, k: number, e: number): number {
  const p = powersOf(controlsOf(sp, k));
  const cosOut = Math.cos(sp.wayOut[k]);
  const sinOut = Math.sin(sp.wayOut[k]);
  const cosIn = Math.cos(sp.wayIn[e]);
  const sinIn = Math.sin(sp.wayIn[e]);
  const a = sp.lengthOut[k];
  const b = sp.lengthIn[e];
  const lastPoint = sp.closed ? -1 : s.n - 1;
  /** The row for distances along (nx, ny): x and y of the first node, its way and handle, then those of the second. */
  const add = (nx: number, ny: number, t: number, gap: number): void => {
    const u = 1 - t;
    const b1 = 3 * u * u * t;
    const b2 = 3 * u * t * t;
    const first = u * u * u + b1;
    const second = b2 + t * t * t;
    share.add(
      nx * first,
      ny * first,
      b1 * a * (ny * cosOut - nx * sinOut),
      b1 * (nx * cosOut + ny * sinOut),
      nx * second,
      ny * second,
      -b2 * b * (ny * cosIn - nx * sinIn),
      -b2 * (nx * cosIn + ny * sinIn),
      gap,
    );
  };
  let sum = 0;
  for (let j = sp.cuts[k]; j < sp.cuts[k + 1] || j === lastPoint; j++) {
    const i = j < s.n ? j : j - s.n;
    const t = sp.ts[i];
    const gx = s.x[i] - (((p[0] * t + p[1]) * t + p[2]) * t + p[3]);
    const gy = s.y[i] - (((p[4] * t + p[5]) * t + p[6]) * t + p[7]);
    let dx = (3 * p[0] * t + 2 * p[1]) * t + p[2];
    let dy = (3 * p[4] * t + 2 * p[5]) * t + p[6];
    const speed = Math.sqrt(dx * dx + dy * dy);
    const isEnd = !sp.closed && (j === 0 || j === lastPoint);
    const weight = isEnd || speed < 1e-12 ? 1 : weightAlong(p, t, dx, dy, speed, (dx * gy - dy * gx) / speed);
    dx = speed < 1e-12 ? cosOut : dx / speed;
    dy = speed < 1e-12 ? sinOut : dy / speed;
    const across = dx * gy - dy * gx;
    sum += across * across;
    add(-dy, dx, t, across);
    if (weight < LEAST_WEIGHT) continue;
    // The stroke's ends are held along the curve too, and so is what bends sharply.
    const along = weight * (dx * gx + dy * gy);
    sum += along * along;
    add(weight * dx, weight * dy, t, along);
  }
  return sum;
}

/** The length of the stroke up to each of its samples; the last is that of the closed stroke. */
function arcLengths(s: Samples): Float64Array {
  const along = new Float64Array(s.n + 1);
  for (let i = 1; i <= s.n; i++) {
    const [a, b] = [i - 1, i % s.n];
    along[i] = along[i - 1] + Math.hypot(s.x[b] - s.x[a], s.y[b] - s.y[a]);
  }
  return along;
}

/** The way along the points that each segment serves. */
function waysOf(sp: Spline, s: Samples, along: Float64Array): number[] {
  const at = (j: number): number => along[j % s.n] + Math.floor(j / s.n) * along[s.n];
  return sp.cuts.slice(0, -1).map((cut, k) => at(sp.cuts[k + 1]) - at(cut));
}

function step(sp: Spline, { places }: Layout, by: Float64Array, ways: number[]): void {
  const turn = (v: number): number => Math.max(-0.5, Math.min(0.5, v));
  places.forEach((p, node) => {
    if (p.x < 0) return;
    sp.x[node] += by[p.x];
    sp.y[node] += by[p.x + 1];
    if (p.wayIn >= 0) {
      sp.wayIn[node] += turn(by[p.wayIn]);
      sp.lengthIn[node] = Math.max(sp.lengthIn[node] / 2, sp.lengthIn[node] + by[p.lengthIn]);
    }
    if (p.wayOut >= 0) {
      sp.wayOut[node] = p.wayOut === p.wayIn ? sp.wayIn[node] : sp.wayOut[node] + turn(by[p.wayOut]);
      sp.lengthOut[node] = Math.max(sp.lengthOut[node] / 2, sp.lengthOut[node] + by[p.lengthOut]);
    }
  });
  boundHandles(sp, ways);
}

/** Holds the handles of each segment within what a curve along its points can have. */
function boundHandles(sp: Spline, ways: number[]): void {
  ways.forEach((heading, k) => {
    const bound = (length: number): number => Math.max(1e-3 * heading + 1e-9, Math.min(1.1 * heading, length));
    sp.lengthOut[k] = bound(sp.lengthOut[k]);
    sp.lengthIn[endNode(sp, k)] = bound(sp.lengthIn[endNode(sp, k)]);
  });
}

/** How much a handle that is as long as all the way weighs, in variances of the noise. */
const STIFFNESS = 10;

/**
 * Draws handles a little to a third of the way along their points. Where points are few, long handles that fold the
 * curve back over itself would follow their noise, and distances across the curve would not tell.
 */
function drawHandles(
  sp: Spline,
  places: Places[],
  ways: number[],
  noise: number,
  system: Skyline,
  right: Float64Array,
): number {
  let sum = 0;
  ways.forEach((heading, k) => {
    const e = endNode(sp, k);
    const w = (STIFFNESS * noise * noise) / (heading * heading + 1e-12);
    for (const [at, length] of [
      [places[k].lengthOut, sp.lengthOut[k]],
      [places[e].lengthIn, sp.lengthIn[e]],
    ]) {
      if (at < 0) continue;
      const gap = heading / 3 - length;
      system.add(at, at, w);
      right[at] += w * gap;
      sum += w * gap * gap;
    }
  });
  return sum;
}

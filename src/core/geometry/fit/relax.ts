import type { Samples } from './samples';
import { Skyline } from './skyline';
import { controlsOf, endNode, project, segmentsOf, type Spline } from './spline';

/** Where each unknown of a node stands in the system; a smooth node's way in is its way out. */
type Places = { x: number; wayIn: number; wayOut: number; lengthIn: number; lengthOut: number };

const CORNER_PIN = 1;
const JOINT_PIN = 0.05;

const block = new Float64Array(64);
const pull = new Float64Array(8);
const row = new Float64Array(8);

/**
 * Moves all nodes, directions and handle lengths of a chain at once to where the points lie nearest, by Gauss and
 * Newton's steps on the distances across the curve (tangent distance: Wang, Pottmann and Liu 2006), damped as by
 * Levenberg and Marquardt. An open chain's ends stay at the stroke's ends. Linear in points and nodes. Gives whether it
 * was still gaining when its rounds were over.
 */
export function relax(sp: Spline, s: Samples, rounds: number): boolean {
  const layout = layoutOf(sp);
  const along = arcLengths(s);
  project(sp, s, 2);
  let damping = 1e-3;
  let now = normalEquations(sp, s, layout);
  for (let round = 0; round < rounds; round++) {
    const kept = copyOf(sp);
    for (let i = 0; i < now.right.length; i++)
      now.system.add(i, i, damping * now.system.diagonal(i) + 1e-9 * (1 + damping));
    if (!now.system.solve(now.right)) return false;
    step(sp, layout, now.right, longestHandles(sp, s, along));
    project(sp, s, 2);
    const then = normalEquations(sp, s, layout);
    if (then.sum <= now.sum) {
      const settled = now.sum - then.sum < 2e-3 * now.sum + 1e-12 * s.n;
      damping = Math.max(1e-6, damping / 5);
      now = then;
      if (settled) return false;
    } else {
      restore(sp, kept);
      if (damping > 1e3) return false;
      damping = Math.max(1e-3, damping * 20);
      now = normalEquations(sp, s, layout);
    }
  }
  return true;
}

const movable = ['x', 'y', 'wayIn', 'wayOut', 'lengthIn', 'lengthOut', 'cuts'] as const;

const copyOf = (sp: Spline) => ({ rows: movable.map((k) => sp[k].slice()), ts: sp.ts.slice() });

function restore(sp: Spline, { rows, ts }: ReturnType<typeof copyOf>): void {
  movable.forEach((k, i) => sp[k].splice(0, Infinity, ...rows[i]));
  sp.ts.set(ts);
}

function layoutOf(sp: Spline): { places: Places[]; first: Int32Array } {
  const places: Places[] = [];
  const begins: number[] = [];
  let at = 0;
  sp.x.forEach((_, node) => {
    begins.push(at);
    const p: Places = { x: at, wayIn: -1, wayOut: -1, lengthIn: -1, lengthOut: -1 };
    at += 2;
    const hasIn = sp.closed || node > 0;
    const hasOut = sp.closed || node < sp.x.length - 1;
    if (hasIn) {
      p.wayIn = at++;
      p.lengthIn = at++;
    }
    if (hasOut) {
      p.wayOut = hasIn && !sp.corner[node] ? p.wayIn : at++;
      p.lengthOut = at++;
    }
    places.push(p);
  });
  const first = new Int32Array(at);
  const last = sp.x.length - 1;
  begins.forEach((begin, node) => {
    const from = sp.closed && node === last ? 0 : begins[Math.max(0, node - 1)];
    for (let i = begin; i < (begins[node + 1] ?? at); i++) first[i] = from;
  });
  return { places, first };
}

function normalEquations(sp: Spline, s: Samples, { places, first }: ReturnType<typeof layoutOf>) {
  const system = new Skyline(first);
  const right = new Float64Array(first.length);
  let sum = 0;
  for (let k = 0; k < segmentsOf(sp); k++) {
    const e = endNode(sp, k);
    block.fill(0);
    pull.fill(0);
    sum += gather(sp, s, k, e);
    const [a, b] = [places[k], places[e]];
    const index = [a.x, a.x + 1, a.wayOut, a.lengthOut, b.x, b.x + 1, b.wayIn, b.lengthIn];
    for (let i = 0; i < 8; i++) {
      right[index[i]] += pull[i];
      for (let j = 0; j <= i; j++) {
        const value = block[8 * i + j];
        const [hi, lo] = index[i] >= index[j] ? [index[i], index[j]] : [index[j], index[i]];
        // A segment from a node to itself meets each pair of its unknowns twice.
        system.add(hi, lo, hi === lo && i !== j ? 2 * value : value);
      }
    }
  }
  return { system, right, sum: sum + pinNodes(sp, s, places, system, right) };
}

/**
 * Draws each node a little to the sample at its cut. Across the curve the points hold it, but along it nothing would:
 * two nearly parallel ways could meet far beyond their points.
 */
function pinNodes(sp: Spline, s: Samples, places: Places[], system: Skyline, right: Float64Array): number {
  let sum = 0;
  for (let node = sp.closed ? 0 : 1; node < segmentsOf(sp); node++) {
    const w = sp.corner[node] ? CORNER_PIN : JOINT_PIN;
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

/** Adds up a segment's share: squares of the derivatives in `block`, their products with the gaps in `pull`. */
function gather(sp: Spline, s: Samples, k: number, e: number): number {
  const c = controlsOf(sp, k);
  const [cosOut, sinOut] = [Math.cos(sp.wayOut[k]), Math.sin(sp.wayOut[k])];
  const [cosIn, sinIn] = [Math.cos(sp.wayIn[e]), Math.sin(sp.wayIn[e])];
  const [a, b] = [sp.lengthOut[k], sp.lengthIn[e]];
  const lastPoint = sp.closed ? -1 : s.n - 1;
  let sum = 0;
  for (let j = sp.cuts[k]; j < sp.cuts[k + 1] || j === lastPoint; j++) {
    const i = j % s.n;
    const t = sp.ts[i];
    const u = 1 - t;
    const [b0, b1, b2, b3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    const gx = s.x[i] - (b0 * c[0] + b1 * c[2] + b2 * c[4] + b3 * c[6]);
    const gy = s.y[i] - (b0 * c[1] + b1 * c[3] + b2 * c[5] + b3 * c[7]);
    let dx = u * u * (c[2] - c[0]) + 2 * u * t * (c[4] - c[2]) + t * t * (c[6] - c[4]);
    let dy = u * u * (c[3] - c[1]) + 2 * u * t * (c[5] - c[3]) + t * t * (c[7] - c[5]);
    const speed = Math.hypot(dx, dy);
    if (speed > 1e-12) {
      dx /= speed;
      dy /= speed;
    } else {
      dx = cosOut;
      dy = sinOut;
    }
    const isEnd = !sp.closed && (j === 0 || j === lastPoint);
    for (let axis = isEnd ? 0 : 1; axis < 2; axis++) {
      // Across the curve; at the stroke's ends along it too.
      const [nx, ny] = axis === 1 ? [-dy, dx] : [dx, dy];
      const gap = nx * gx + ny * gy;
      row[0] = nx * (b0 + b1);
      row[1] = ny * (b0 + b1);
      row[2] = b1 * a * (ny * cosOut - nx * sinOut);
      row[3] = b1 * (nx * cosOut + ny * sinOut);
      row[4] = nx * (b2 + b3);
      row[5] = ny * (b2 + b3);
      row[6] = -b2 * b * (ny * cosIn - nx * sinIn);
      row[7] = -b2 * (nx * cosIn + ny * sinIn);
      sum += gap * gap;
      for (let p = 0; p < 8; p++) {
        const v = row[p];
        pull[p] += v * gap;
        for (let q = 0; q <= p; q++) block[8 * p + q] += v * row[q];
      }
    }
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

/** How long a handle of each segment may become: a little more than the way along the points it serves. */
function longestHandles(sp: Spline, s: Samples, along: Float64Array): number[] {
  const at = (j: number): number => along[j % s.n] + Math.floor(j / s.n) * along[s.n];
  return sp.cuts.slice(0, -1).map((cut, k) => 1.2 * (at(sp.cuts[k + 1]) - at(cut)));
}

function step(sp: Spline, { places }: ReturnType<typeof layoutOf>, by: Float64Array, longest: number[]): void {
  const turn = (v: number): number => Math.max(-0.5, Math.min(0.5, v));
  places.forEach((p, node) => {
    sp.x[node] += by[p.x];
    sp.y[node] += by[p.x + 1];
    if (p.wayIn >= 0) {
      sp.wayIn[node] += turn(by[p.wayIn]);
      const before = longest[(node - 1 + longest.length) % longest.length];
      sp.lengthIn[node] = bounded(sp.lengthIn[node], by[p.lengthIn], before);
    }
    if (p.wayOut >= 0) {
      sp.wayOut[node] = p.wayOut === p.wayIn ? sp.wayIn[node] : sp.wayOut[node] + turn(by[p.wayOut]);
      sp.lengthOut[node] = bounded(sp.lengthOut[node], by[p.lengthOut], longest[node]);
    }
  });
}

/** A handle's length after a step: at most halved, never longer than it may be, never gone. */
const bounded = (length: number, by: number, longest: number): number =>
  Math.max(1e-3 * longest + 1e-9, Math.min(longest, Math.max(length / 2, length + by)));

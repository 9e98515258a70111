import { shownCubics } from '../drawing/rounding';
import type { Line, Mark } from '../drawing/schema';
import { derivative, evaluate, polygonLength, type Cubic } from '../geometry/cubic';
import { distance, unit, type Point } from '../geometry/point';
import { thinnedMarks } from './thinMarks';

/** Samples along a stroke lie this far apart, in page units, and closer where it is short. */
const STEP = 1.5;
const FEWEST = 12;

/** The half-widths at a share of the length: straight between marks, level beyond the first and last. */
export function widthAt(marks: readonly Mark[], at: number): { left: number; right: number } {
  const after = marks.findIndex((m) => m.at >= at);
  if (after === 0) return marks[0];
  if (after < 0) return marks.at(-1)!;
  const [a, b] = [marks[after - 1], marks[after]];
  const t = b.at > a.at ? (at - a.at) / (b.at - a.at) : 1;
  return { left: a.left + (b.left - a.left) * t, right: a.right + (b.right - a.right) * t };
}

/** The body of a line with width marks as one closed ring of points, round at both ends; null for a line without. */
export function bodyOf(line: Pick<Line, 'runs' | 'marks'>): Point[] | null {
  const { marks } = line;
  if (!marks || marks.length === 0) return null;
  const samples = along(shownCubics(line.runs[0]));
  if (samples.length < 2) return null;
  const total = samples.at(-1)!.way || 1;
  const [left, right]: [Point[], Point[]] = [[], []];
  for (const { at, across, way } of samples) {
    const w = widthAt(marks, way / total);
    left.push({ x: at.x + across.x * w.left, y: at.y + across.y * w.left });
    right.push({ x: at.x - across.x * w.right, y: at.y - across.y * w.right });
  }
  const [first, last] = [samples[0], samples.at(-1)!];
  return [
    ...left,
    ...cap(last.at, left.at(-1)!, right.at(-1)!),
    ...right.reverse(),
    ...cap(first.at, right.at(-1)!, left[0]),
  ];
}

type Sample = { at: Point; across: Point; way: number };

/** Points along a run with the direction to their left (y points down) and the way up to them. */
function along(cubics: readonly Cubic[]): Sample[] {
  const samples: Sample[] = [];
  let way = 0;
  let last: Point | null = null;
  for (const c of cubics) {
    const count = Math.max(FEWEST, Math.min(400, Math.ceil(polygonLength(c) / STEP)));
    for (let i = last ? 1 : 0; i <= count; i++) {
      const t = i / count;
      const at = evaluate(c, t);
      const d = directionAt(c, t);
      if (last) way += distance(last, at);
      last = at;
      if (d) samples.push({ at, across: { x: d.y, y: -d.x }, way });
    }
  }
  return samples;
}

/** The direction at `t`, of length 1; where the curve stands still, that close by. */
function directionAt(c: Cubic, t: number): Point | null {
  for (const u of [t, Math.min(1, t + 1e-3), Math.max(0, t - 1e-3)]) {
    const d = unit(derivative(c, u));
    if (d) return d;
  }
  return null;
}

/** Half a turn about an end, from one side of the body to the other. */
function cap(middle: Point, from: Point, to: Point): Point[] {
  const start = Math.atan2(from.y - middle.y, from.x - middle.x);
  const [r, s] = [distance(middle, from), distance(middle, to)];
  return [1, 2, 3, 4, 5, 6, 7].map((i) => {
    const a = start + (Math.PI * i) / 8;
    const k = r + ((s - r) * i) / 8;
    return { x: middle.x + k * Math.cos(a), y: middle.y + k * Math.sin(a) };
  });
}

/** How far a mark thinned away may lie from the straight way between its neighbours, in page units. */
const THINNING = 0.15;

/**
 * Width marks from a pen's pressure along a stroke: `samples` are ways along it with the pressure there (0…1); full
 * pressure is one and a half times `width`, none a fifth of it. Thinned to as few as keep within a tolerance.
 */
export function marksFromPressure(samples: readonly { way: number; pressure: number }[], width: number): Mark[] {
  const total = samples.at(-1)?.way ?? 0;
  if (samples.length < 2 || total <= 0) return [];
  const smooth = samples.map((s, i) => {
    const near = samples.slice(Math.max(0, i - 3), i + 4);
    return {
      at: s.way / total,
      half: ((0.2 + 1.3 * (near.reduce((sum, n) => sum + n.pressure, 0) / near.length)) * width) / 2,
    };
  });
  return thinnedMarks(
    smooth.map(({ at, half }) => ({ at, left: half, right: half })),
    THINNING,
  );
}

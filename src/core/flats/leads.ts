import { evaluate, polygonLength } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { cross, distance, dot, subtract, type Point } from '../geometry/point';
import type { Curves, End } from './ends';
import { turn, type Vertices } from './grid';
import type { NearPieces } from './nearPieces';
import type { Pieces } from './pieces';

/** Where an open end is led to: a place on a curve, which can be another open end. */
export type Lead = {
  readonly end: End;
  readonly curve: number;
  readonly t: number;
  readonly point: Point;
  readonly to: End | null;
};

type Foot = { t: number; point: Point; distance: number };

type Candidate = { curve: number; foot: Foot; turn: number };

/**
 * An end whose nearest place lies beside it, or is an end that comes the same way, as where spokes stop side by side,
 * goes on to what lies ahead of it, where there is something so soon: radians off its way, and a share of the gap.
 */
const BESIDE = Math.PI / 3;
const AHEAD = Math.PI / 4;
const SOON = 0.6;
/** A foot so near to the other's own end, as a share of the gap, is that end. */
const AT_END = 0.35;
/** What the end of a run crosses within so many times the gap it has met. */
const MET = 1.5;
/** An end is led to its own run from so many times the gap away along it. */
const ROUND = 3;
/** So many places of a curve are looked at where a part of it only will do. */
const PLACES = 48;

/**
 * For each open end the nearest place of another line, or of its own further along, within `gap`; none where the end
 * crosses that line just before, for then it meets it. `near` finds `pieces`.
 */
export function leadsOf(curves: Curves, vertices: Vertices, pieces: Pieces, near: NearPieces, gap: number): Lead[] {
  const leads = new Leads(curves, vertices, pieces, near, gap);
  return curves.ends.flatMap((end) => leads.of(end) ?? []);
}

/** How far the way from `at` to `to` turns off from `way`, radians. */
function turnTo(way: Point, at: Point, to: Point): number {
  const on = subtract(to, at);
  return Math.abs(Math.atan2(cross(way, on), dot(way, on)));
}

class Leads {
  /** The open ends on each curve. */
  private readonly endsOf = new Map<number, End[]>();

  constructor(
    private readonly curves: Curves,
    private readonly vertices: Vertices,
    private readonly pieces: Pieces,
    private readonly near: NearPieces,
    private readonly gap: number,
  ) {
    for (const end of curves.ends) this.endsOf.set(end.curve, [...(this.endsOf.get(end.curve) ?? []), end]);
  }

  of(end: End): Lead | null {
    const { cubics, run } = this.curves;
    const met = this.metBy(end);
    const outward = this.outward(end);
    let nearest: Candidate | null = null;
    let ahead: Candidate | null = null;
    for (const curve of new Set(this.around(end.point, this.gap).map((i) => this.pieces.source[i]))) {
      if (met.has(run[curve])) continue;
      const foot = run[curve] === end.run ? this.ownFoot(end, curve) : nearestOnCubic(cubics[curve], end.point);
      if (!foot || foot.distance > this.gap) continue;
      const found = { curve, foot, turn: turnTo(outward, end.point, foot.point) };
      if (!(nearest && foot.distance >= nearest.foot.distance)) nearest = found;
      const isAhead = found.turn <= AHEAD && foot.distance <= SOON * this.gap;
      if (isAhead && !(ahead && foot.distance >= ahead.foot.distance)) ahead = found;
    }
    if (!nearest) return null;
    const lead = this.atEnd(end, nearest);
    if (!ahead || ahead === nearest) return lead;
    const isBeside = nearest.turn > BESIDE || (lead.to !== null && dot(outward, this.outward(lead.to)) > 0);
    return isBeside ? this.atEnd(end, ahead) : lead;
  }

  /** The way on from an end, by what came last of its run. */
  private outward(end: End): Point {
    const c = this.curves.cubics[end.curve];
    const [e, ...inner] = end.atStart ? c : [c[3], c[2], c[1], c[0]];
    const before = inner.find((p) => distance(p, e) > 1e-9) ?? e;
    return subtract(e, before);
  }

  /** The pieces within reach of a place. */
  private around(p: Point, reach: number): number[] {
    const { vertices } = this;
    const [x, y, r] = [vertices.gridX(p.x), vertices.gridY(p.y), reach / vertices.step + 1];
    const found: number[] = [];
    this.near.search(x - r, y - r, x + r, y + r, (i) => found.push(i));
    return found;
  }

  /** A foot near the open end of its run is led to that end itself. */
  private atEnd(end: End, { curve, foot }: Candidate): Lead {
    const to = this.endsOf.get(curve)?.find((e) => distance(e.point, foot.point) <= AT_END * foot.distance);
    return { end, curve, t: to ? (to.atStart ? 0 : 1) : foot.t, point: to?.point ?? foot.point, to: to ?? null };
  }

  /** The curves of an end's run from it on, as far as `length` along them. */
  private tailFrom(end: End, length: number): Set<number> {
    const { cubics, run } = this.curves;
    const tail = new Set<number>();
    let left = length;
    for (let k = end.curve; run[k] === end.run && left > 0; k += end.atStart ? 1 : -1) {
      tail.add(k);
      left -= polygonLength(cubics[k]);
    }
    return tail;
  }

  /** The runs that an end's tail crosses within reach of the end; its own where it crosses that. */
  private metBy(end: End): Set<number> {
    const { run } = this.curves;
    const { source } = this.pieces;
    const met = new Set<number>();
    const tail = this.tailFrom(end, MET * this.gap);
    const around = this.around(end.point, MET * this.gap);
    const own = around.filter((i) => tail.has(source[i]));
    for (const j of around) {
      if (tail.has(source[j]) || met.has(run[source[j]])) continue;
      const isNext = (i: number): boolean => run[source[j]] === end.run && Math.abs(source[i] - source[j]) === 1;
      if (own.some((i) => !isNext(i) && this.crosses(i, j))) met.add(run[source[j]]);
    }
    return met;
  }

  private crosses(i: number, j: number): boolean {
    const { from, to } = this.pieces;
    return this.parts(from[i], to[i], from[j], to[j]) && this.parts(from[j], to[j], from[i], to[i]);
  }

  /** Whether two vertices lie to either side of two others. */
  private parts(a: number, b: number, c: number, d: number): boolean {
    const s = turn(this.vertices, a, b, c);
    if (s === 0) return false;
    const t = turn(this.vertices, a, b, d);
    return t !== 0 && s > 0 !== t > 0;
  }

  /** The nearest place of a curve of an end's own run, of those that lie far enough from it along the run. */
  private ownFoot(end: End, curve: number): Foot | null {
    const { cubics, run } = this.curves;
    const step = end.atStart ? 1 : -1;
    let before = 0;
    for (let k = end.curve; k !== curve && run[k] === end.run; k += step) before += polygonLength(cubics[k]);
    const c = cubics[curve];
    if (before >= ROUND * this.gap) return nearestOnCubic(c, end.point);
    // Its places that lie far enough, walked from the end on: parameters say little about lengths.
    let best: Foot | null = null;
    let last = evaluate(c, end.atStart ? 0 : 1);
    for (let i = 1; i <= PLACES; i++) {
      const t = end.atStart ? i / PLACES : 1 - i / PLACES;
      const point = evaluate(c, t);
      before += distance(last, point);
      last = point;
      const away = distance(point, end.point);
      if (before >= ROUND * this.gap && !(best && away >= best.distance)) best = { t, point, distance: away };
    }
    return best;
  }
}

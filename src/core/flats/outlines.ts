import { evaluate, pieceOf, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { add, distance, mix, subtract, type Point } from '../geometry/point';
import { headOf, tailOf, type Walk } from './faces';
import type { Vertices } from './grid';
import type { Pieces } from './pieces';

/** A part of one curve on a walk, between two of its pieces: from a vertex at one parameter to a vertex at another. */
type Part = { source: number; t0: number; t1: number; from: number; to: number; first: number; last: number };

/** A part as it is drawn, as its curve goes, up to a piece. */
type Drawn = { readonly last: number; readonly cubic: Cubic };

/** What is no longer than so many steps of the grid is not drawn: the next part begins where it began. */
const SHORTEST = 4;
const NEWTON = 6;
/** A step of Newton's so small, as a share of a curve, is the last: after it what is left is the rounding. */
const SETTLED = 1e-9;
/** So many parts of others lie between two of a curve that runs together with them, at most. */
const MOST_BETWEEN = 3;

/** Makes outlines of walks: the parts of the curves themselves, exact but for the rounding of where they meet. */
export class Outlines {
  /** Where curves truly cross, by vertex: as far as it has been looked for. */
  private readonly crossings: (Point | undefined)[];
  /** And which two curves these are, each at which parameter: two places a vertex, -1 for none. */
  private readonly sources: Int32Array;
  private readonly parameters: Float64Array;
  /** Parts by their first piece: each has an area to both its sides, and is drawn once for both. */
  private readonly drawn: (Drawn | undefined)[];
  private readonly p: Tangent = { x: 0, y: 0, dx: 0, dy: 0 };
  private readonly q: Tangent = { x: 0, y: 0, dx: 0, dy: 0 };

  constructor(
    private readonly curves: readonly Cubic[],
    private readonly vertices: Vertices,
    private readonly pieces: Pieces,
    /** What lies so near to a curve runs along it, px; no less than pieces stray from their curves. */
    private readonly touch: number,
  ) {
    const n = vertices.x.length;
    this.crossings = new Array<Point | undefined>(n);
    this.sources = new Int32Array(2 * n).fill(-1);
    this.parameters = new Float64Array(2 * n);
    this.drawn = new Array<Drawn | undefined>(pieces.length);
  }

  /** A closed outline along a walk. */
  of(walk: Walk): Cubic[] {
    const parts = this.alongOne(this.partsOf(walk));
    const cubics: Cubic[] = [];
    let from: Point | null = null;
    for (const [i, part] of parts.entries()) {
      const start: Point = from ?? this.placeOf(part.from, part, parts.at(i - 1)!);
      const end = this.placeOf(part.to, part, parts[(i + 1) % parts.length]);
      if (distance(start, end) <= SHORTEST * this.vertices.step && this.isShort(part)) {
        from = start;
        continue;
      }
      cubics.push(this.drawnOf(part, start, end));
      from = end;
    }
    const last = cubics.at(-1);
    if (last) cubics[cubics.length - 1] = between(last, last[0], cubics[0][0]);
    return cubics;
  }

  /** The walk in parts that are each of one curve, begun where one ends. */
  private partsOf({ edges, from, to }: Walk): Part[] {
    const p = this.pieces;
    const parts: Part[] = [];
    for (let k = from; k < to; k++) {
      const h = edges[k];
      const i = h >> 1;
      const [t0, t1] = h & 1 ? [p.t1[i], p.t0[i]] : [p.t0[i], p.t1[i]];
      const last = parts.at(-1);
      if (last && last.source === p.source[i] && last.t1 === t0 && t1 > t0 === last.t1 > last.t0) {
        last.t1 = t1;
        last.to = headOf(p, h);
        last.last = i;
      } else parts.push({ source: p.source[i], t0, t1, from: tailOf(p, h), to: headOf(p, h), first: i, last: i });
    }
    const [first, last] = [parts[0], parts.at(-1)!];
    const goesOn = parts.length > 1 && last.source === first.source && last.t1 === first.t0;
    if (goesOn && last.t1 > last.t0 === first.t1 > first.t0) {
      parts.pop();
      parts[0] = { ...first, t0: last.t0, from: last.from, first: last.first };
    }
    return parts;
  }

  /** Where two curves run together a walk changes between them: it is led along the one that it came on. */
  private alongOne(parts: Part[]): Part[] {
    const kept: Part[] = [];
    for (let i = 0; i < parts.length; i++) {
      let part = parts[i];
      for (let k = i + 1; k <= Math.min(i + MOST_BETWEEN + 1, parts.length - 1); k++) {
        const later = parts[k];
        const goesOn = later.source === part.source && later.t1 > later.t0 === part.t1 > part.t0;
        if (!goesOn || later.t0 > part.t1 !== part.t1 > part.t0) continue;
        if (!parts.slice(i + 1, k).every((q) => this.runsAlong(q, part.source))) continue;
        part = { ...part, t1: later.t1, to: later.to, last: later.last };
        i = k;
      }
      kept.push(part);
    }
    return kept;
  }

  private runsAlong({ source, t0, t1 }: Part, other: number): boolean {
    const middle = evaluate(this.curves[source], (t0 + t1) / 2);
    return nearestOnCubic(this.curves[other], middle).distance <= this.touch;
  }

  /** Whether a curve is a straight one that goes along evenly: what is left of it needs no handles. */
  private isStraight(source: number): boolean {
    const [a, b, c, d] = this.curves[source];
    const [m, n] = [mix(a, d, 1 / 3), mix(a, d, 2 / 3)];
    return distance(b, m) <= this.vertices.step && distance(c, n) <= this.vertices.step;
  }

  private isShort({ source, t0, t1 }: Part): boolean {
    const middle = evaluate(this.curves[source], (t0 + t1) / 2);
    const start = evaluate(this.curves[source], t0);
    return distance(start, middle) <= SHORTEST * this.vertices.step;
  }

  /** A part between two places. Of that to its other side it is the same the other way, down to its places. */
  private drawnOf(part: Part, start: Point, end: Point): Cubic {
    const isForward = part.t0 < part.t1;
    const [first, last] = isForward ? [part.first, part.last] : [part.last, part.first];
    const [a, b] = isForward ? [start, end] : [end, start];
    const known = this.drawn[first];
    const isKnown = known && known.last === last && known.cubic[0] === a && known.cubic[3] === b;
    const cubic = isKnown ? known.cubic : this.between(part, a, b);
    if (!isKnown) this.drawn[first] = { last, cubic };
    return isForward ? cubic : [cubic[3], cubic[2], cubic[1], cubic[0]];
  }

  /** A part as its curve goes, from one place to another. */
  private between(part: Part, a: Point, b: Point): Cubic {
    return this.isStraight(part.source) ? [a, a, b, b] : between(this.cut(part), a, b);
  }

  /** The part of the curve, as that goes. */
  private cut(part: Part): Cubic {
    const { source } = part;
    let [t0, t1] = [this.parameterAt(part.from, source, part.t0), this.parameterAt(part.to, source, part.t1)];
    if (t0 === t1 || t0 > t1 !== part.t0 > part.t1) [t0, t1] = [part.t0, part.t1];
    return pieceOf(this.curves[source], Math.min(t0, t1), Math.max(t0, t1));
  }

  private parameterAt(vertex: number, source: number, t: number): number {
    const k = 2 * vertex;
    if (this.sources[k] === source) return this.parameters[k];
    return this.sources[k + 1] === source ? this.parameters[k + 1] : t;
  }

  /** Where a vertex lies on the page: where two curves cross there, that very place. */
  private placeOf(vertex: number, a: Part, b: Part): Point {
    const known = this.crossings[vertex];
    if (known) return known;
    const t = (part: Part): number => (part.from === vertex ? part.t0 : part.t1);
    const place =
      a.source === b.source || [t(a), t(b)].some((s) => s === 0 || s === 1)
        ? this.vertices.place(vertex)
        : this.crossingNear(vertex, a.source, t(a), b.source, t(b));
    return (this.crossings[vertex] = place);
  }

  /** Newton's steps towards where two curves cross; the vertex itself where they lead away. */
  private crossingNear(vertex: number, a: number, ta: number, b: number, tb: number): Point {
    const [c, d] = [this.curves[a], this.curves[b]];
    const { p, q } = this;
    let s = ta;
    let u = tb;
    for (let i = 0; i < NEWTON; i++) {
      tangentAt(c, s, p);
      tangentAt(d, u, q);
      const determinant = p.dx * q.dy - p.dy * q.dx;
      if (Math.abs(determinant) < 1e-9) break;
      const x = p.x - q.x;
      const y = p.y - q.y;
      const ds = (x * q.dy - y * q.dx) / determinant;
      const du = (x * p.dy - y * p.dx) / determinant;
      s -= ds;
      u -= du;
      if (Math.abs(ds) < SETTLED && Math.abs(du) < SETTLED) break;
    }
    const place = this.vertices.place(vertex);
    if (!(s >= 0 && s <= 1 && u >= 0 && u <= 1)) return place;
    const found = evaluate(c, s);
    if (!(distance(found, evaluate(d, u)) < 1e-6 && distance(found, place) <= this.touch)) return place;
    this.sources[2 * vertex] = a;
    this.sources[2 * vertex + 1] = b;
    this.parameters[2 * vertex] = s;
    this.parameters[2 * vertex + 1] = u;
    return found;
  }
}

/** A place on a curve and its derivative there: kept and written over, for there are millions. */
type Tangent = { x: number; y: number; dx: number; dy: number };

function tangentAt([a, b, c, d]: Cubic, t: number, into: Tangent): void {
  const m = 1 - t;
  const [m2, mt, t2] = [m * m, m * t, t * t];
  into.x = m2 * m * a.x + 3 * t * m2 * b.x + 3 * t2 * m * c.x + t2 * t * d.x;
  into.y = m2 * m * a.y + 3 * t * m2 * b.y + 3 * t2 * m * c.y + t2 * t * d.y;
  into.dx = 3 * (m2 * (b.x - a.x) + 2 * mt * (c.x - b.x) + t2 * (d.x - c.x));
  into.dy = 3 * (m2 * (b.y - a.y) + 2 * mt * (c.y - b.y) + t2 * (d.y - c.y));
}

/** A cubic with its ends moved to two places, its handles with them. */
function between([a, b, c, d]: Cubic, start: Point, end: Point): Cubic {
  return [start, add(b, subtract(start, a)), add(c, subtract(end, d)), end];
}

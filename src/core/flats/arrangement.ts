import { assertRun, type CubicRun } from '../geometry/along';
import { cubicArea, straightCubic, type Cubic } from '../geometry/cubic';
import { distance, type Point } from '../geometry/point';
import { curvesOf } from './ends';
import { Faces, type Face } from './faces';
import { indexOf, Vertices, type Pieces } from './grid';
import { leadsOf } from './leads';
import { Outlines } from './outlines';
import { straightPieces } from './pieces';
import { snapRounded } from './snapRounding';
import { Splits } from './splits';
import { Touches } from './touches';

/** An area that lines bound: its outline, then those of what lies within it and is not of it; its size without that, px². */
export type Area = { readonly loops: Cubic[][]; readonly size: number };

/** Where an open end is led over a gap to what it nearly meets. */
export type Closing = { readonly from: Point; readonly to: Point };

/** Straight pieces stray no further from their curves, px; less where all is small, a share of its extent. */
const STRAY = { px: 0.04, share: 4e-4 };
/** What comes so near to another touches it, px; or a share of the extent. */
const TOUCHES = { px: 0.05, share: 5e-4 };

/** The areas between runs, and how their ends were led to each other. Found only when asked for. */
export class Arrangement {
  readonly closings: Closing[] = [];
  private readonly faces: Faces | null;
  private readonly vertices: Vertices;
  private readonly outlines: Outlines | null = null;
  private readonly touch: number;
  private readonly known = new Map<Face, Area | null>();

  constructor(runs: readonly CubicRun[], gap: number) {
    const curves = curvesOf(runs);
    this.vertices = new Vertices(curves.cubics);
    const { extent } = this.vertices;
    this.touch = Math.min(TOUCHES.px, TOUCHES.share * extent);
    const pieces = straightPieces(curves.cubics, this.vertices, Math.min(STRAY.px, STRAY.share * extent));
    const index = indexOf(this.vertices, pieces);
    if (!index) {
      this.faces = null;
      return;
    }
    const sources = [...curves.cubics];
    const splits = new Splits();
    const starts = startsOf(pieces, curves.cubics.length);
    const divide = (curve: number, t: number, p: Point): number => {
      const vertex = this.vertices.at(p, true);
      const piece = pieceAt(pieces, starts, curve, t);
      if (piece >= 0 && vertex !== pieces.from[piece] && vertex !== pieces.to[piece])
        splits.add(piece, vertex, true, t);
      return vertex;
    };
    /** Joins two places by a straight one. What is joined afterwards is looked at by itself. */
    const joints: { a: number; b: number; source: number }[] = [];
    const join = (a: number, b: number, from: Point, to: Point): void => {
      if (a !== b) joints.push({ a, b, source: sources.push(straightCubic(from, to)) - 1 });
    };
    for (const { end, curve, t, point } of leadsOf(curves, this.vertices, pieces, index, Math.max(gap, this.touch))) {
      join(this.vertices.at(end.point), divide(curve, t, point), end.point, point);
      if (distance(end.point, point) > this.touch) this.closings.push({ from: end.point, to: point });
    }
    const touches = new Touches(curves, this.vertices, pieces, this.touch);
    const rounded = snapRounded(this.vertices, pieces, index, splits, this.touch / this.vertices.step, {
      passing: (i, j) => touches.look(i, j),
      joints: () => {
        for (const { a, ta, b, tb, points } of touches.list)
          join(divide(a, ta, points[0]), divide(b, tb, points[1]), ...points);
        return joints;
      },
    });
    this.faces = new Faces(this.vertices, rounded);
    this.outlines = new Outlines(sources, this.vertices, rounded, this.touch);
  }

  /** Every bounded area once; what is thinner than a touch is none. */
  areas(): Area[] {
    return this.faces ? this.faces.list.flatMap((f) => this.area(f) ?? []) : [];
  }

  /** The area that holds a place; null outside of all. */
  areaAt(p: Point): Area | null {
    const face = this.faces?.at(this.vertices.gridX(p.x), this.vertices.gridY(p.y));
    return face ? this.area(face) : null;
  }

  /** The area of a face; always the same object. */
  private area(face: Face): Area | null {
    let area = this.known.get(face);
    if (area === undefined) this.known.set(face, (area = this.areaOf(face)));
    return area;
  }

  private areaOf(face: Face): Area | null {
    const outer = this.outlines!.of(face.outer);
    const holes = face.holes.map((h) => this.outlines!.of(h)).filter((h) => h.length > 0);
    const loops = [outer, ...holes];
    const size = loops.flat().reduce((sum, c) => sum + cubicArea(c), 0);
    return outer.length === 0 || size < this.touch * lengthOf(loops.flat()) ? null : { loops, size };
  }
}

/** @throws RangeError for a bad run, or a gap that is below 0 or not finite. */
export function arrangementOf(runs: readonly CubicRun[], { gap }: { gap: number }): Arrangement {
  if (!Array.isArray(runs)) throw new RangeError('the runs must be a list');
  runs.forEach(assertRun);
  if (!Number.isFinite(gap) || gap < 0) throw new RangeError('the gap must be a length of 0 or more');
  return new Arrangement(runs, gap);
}

/** Half the length of an outline, roughly. */
const lengthOf = (outline: readonly Cubic[]): number =>
  outline.reduce((sum, [a, , , d]) => sum + Math.hypot(d.x - a.x, d.y - a.y), 0) / 2;

/** Where the pieces of each curve begin in the list. */
function startsOf(pieces: Pieces, curves: number): Int32Array {
  const starts = new Int32Array(curves + 1);
  for (let i = 0; i < pieces.length; i++) starts[pieces.source[i] + 1]++;
  for (let k = 0; k < curves; k++) starts[k + 1] += starts[k];
  return starts;
}

/** The piece of a curve that a parameter lies on; -1 where it has none. */
function pieceAt(pieces: Pieces, starts: Int32Array, curve: number, t: number): number {
  for (let i = starts[curve]; i < starts[curve + 1]; i++) if (t <= pieces.t1[i]) return i;
  return starts[curve + 1] > starts[curve] ? starts[curve + 1] - 1 : -1;
}

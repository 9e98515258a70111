import { assertRun, type CubicRun } from '../geometry/along';
import { cubicArea, type Cubic } from '../geometry/cubic';
import { distance, type Box, type Point } from '../geometry/point';
import { curvesOf } from './ends';
import { Faces, type Face } from './faces';
import { indexOf, Vertices } from './grid';
import { Joints } from './joints';
import { leadsOf } from './leads';
import { Outlines } from './outlines';
import { straightPieces } from './pieces';
import { snapRounded } from './snapRounding';
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

  /** With `within`, of what reaches into that box: areas that lie in it are as of all. */
  constructor(runs: readonly CubicRun[], gap: number, within: Box | null) {
    const curves = curvesOf(runs);
    this.vertices = new Vertices(curves.cubics);
    const { extent } = this.vertices;
    this.touch = Math.min(TOUCHES.px, TOUCHES.share * extent);
    const pieces = straightPieces(curves.cubics, this.vertices, Math.min(STRAY.px, STRAY.share * extent), within);
    const index = indexOf(this.vertices, pieces);
    if (!index) {
      this.faces = null;
      return;
    }
    const joints = new Joints(curves.cubics, this.vertices, pieces);
    for (const { end, ...foot } of leadsOf(curves, this.vertices, pieces, index, Math.max(gap, this.touch))) {
      joints.join({ curve: end.curve, t: end.atStart ? 0 : 1, point: end.point }, foot);
      if (distance(end.point, foot.point) > this.touch) this.closings.push({ from: end.point, to: foot.point });
    }
    const touches = new Touches(curves, this.vertices, pieces, this.touch);
    const rounded = snapRounded(this.vertices, pieces, index, joints.splits, this.touch / this.vertices.step, {
      passing: (i, j) => touches.look(i, j),
      joints: () => {
        for (const [a, b] of touches.list) joints.join(a, b);
        return joints.list;
      },
    });
    this.faces = new Faces(this.vertices, rounded);
    this.outlines = new Outlines(joints.sources, this.vertices, rounded, this.touch);
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
export function arrangementOf(
  runs: readonly CubicRun[],
  { gap, within = null }: { gap: number; within?: Box | null },
): Arrangement {
  assertRuns(runs, gap);
  return new Arrangement(runs, gap, within);
}

/** @throws RangeError for a bad run, or a gap that is below 0 or not finite. */
export function assertRuns(runs: readonly CubicRun[], gap: number): void {
  if (!Array.isArray(runs)) throw new RangeError('the runs must be a list');
  runs.forEach(assertRun);
  if (!Number.isFinite(gap) || gap < 0) throw new RangeError('the gap must be a length of 0 or more');
}

/** Half the length of an outline, roughly. */
const lengthOf = (outline: readonly Cubic[]): number =>
  outline.reduce((sum, [a, , , d]) => sum + Math.hypot(d.x - a.x, d.y - a.y), 0) / 2;

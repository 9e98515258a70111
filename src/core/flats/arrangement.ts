import { assertRun, type CubicRun } from '../geometry/along';
import { cubicArea, type Cubic } from '../geometry/cubic';
import { boxHolds } from '../geometry/box';
import { distance, type Box, type Point } from '../geometry/point';
import { curvesOf } from './ends';
import { Faces, type Face } from './faces';
import { Vertices } from './grid';
import { Joints } from './joints';
import { leadsOf } from './leads';
import { Outlines } from './outlines';
import { NearPieces } from './nearPieces';
import { straightPieces } from './pieces';
import { roundBySnapping } from './snapRounding';
import { Touches } from './touches';

/** An area that lines bound: its outline, then those of what lies within it and is not of it; its size without that, px². */
export type Area = { readonly loops: Cubic[][]; readonly size: number };

/** Where an open end is led over a gap to what it nearly meets. */
export type Closing = { readonly from: Point; readonly to: Point };

/** Straight pieces stray no further from their curves, px; less where all is small, a share of its extent. */
const STRAY = { px: 0.04, share: 4e-4 };
/** What comes so near to another touches it, px; or a share of the extent. */
const TOUCHES = { px: 0.05, share: 5e-4 };

/** Rounding moves a piece by no more than so many steps. */
const ROUNDED = 32;

/** The areas between runs, and how their ends were led to each other. Found only when asked for. */
export class Arrangement {
  readonly closings: Closing[] = [];
  private readonly faces: Faces | null;
  private readonly vertices: Vertices;
  private readonly outlines: Outlines | null = null;
  private readonly touch: number;
  /** By face; null where it is too thin. */
  private readonly known: (Area | null | undefined)[] = [];

  /** With `within`, of what reaches into that box: areas that lie in it are as of all. */
  constructor(runs: readonly CubicRun[], gap: number, within: Box | null) {
    const curves = curvesOf(runs);
    this.vertices = new Vertices(curves.cubics);
    const { extent } = this.vertices;
    this.touch = Math.min(TOUCHES.px, TOUCHES.share * extent);
    const stray = Math.min(STRAY.px, STRAY.share * extent);
    const whole = straightPieces(curves.cubics, this.vertices, stray, within);
    if (whole.length === 0) {
      this.faces = null;
      return;
    }
    const found = new NearPieces(this.vertices, whole, (stray + this.touch) / this.vertices.step + ROUNDED);
    found.cover(0);
    const joints = new Joints(curves.cubics, this.vertices, whole);
    const ends = within ? curves.ends.filter((e) => boxHolds(within, e.point)) : curves.ends;
    for (const { end, ...foot } of leadsOf(
      { ...curves, ends },
      this.vertices,
      whole,
      found,
      Math.max(gap, this.touch),
    )) {
      joints.join({ curve: end.curve, t: end.atStart ? 0 : 1, point: end.point }, foot);
      if (distance(end.point, foot.point) > this.touch) this.closings.push({ from: end.point, to: foot.point });
    }
    const touches = new Touches(curves, this.vertices, whole, this.touch);
    const wholes = roundBySnapping(this.vertices, whole, found, joints.splits, this.touch / this.vertices.step, {
      passing: (i, j) => touches.look(i, j),
      joints: () => {
        for (const [a, b] of touches.list) joints.join(a, b);
        return joints.list;
      },
    });
    const { pieces, first } = whole.inOrder(wholes);
    this.faces = new Faces(this.vertices, pieces, found.inOrder(pieces, first));
    this.outlines = new Outlines(joints.sources, this.vertices, pieces, this.touch);
  }

  /** Every bounded area once; what is thinner than a touch is none. */
  areas(): Area[] {
    const areas: Area[] = [];
    for (let k = 0; k < (this.faces?.list.length ?? 0); k++) {
      const area = this.area(k);
      if (area) areas.push(area);
    }
    return areas;
  }

  /** The area that holds a place; null outside of all. */
  areaAt(p: Point): Area | null {
    const face = this.faces?.at(this.vertices.gridX(p.x), this.vertices.gridY(p.y)) ?? -1;
    return face < 0 ? null : this.area(face);
  }

  /** The area of a face; always the same object. */
  private area(face: number): Area | null {
    let area = this.known[face];
    if (area === undefined) area = this.known[face] = this.areaOf(this.faces!.list[face]);
    return area;
  }

  private areaOf(face: Face): Area | null {
    const outer = this.outlines!.of(face.outer);
    if (outer.length === 0) return null;
    const loops = [outer];
    for (const h of face.holes) {
      const hole = this.outlines!.of(h);
      if (hole.length > 0) loops.push(hole);
    }
    let [size, length] = [0, 0];
    for (const loop of loops)
      for (const c of loop) {
        size += cubicArea(c);
        length += distance(c[0], c[3]);
      }
    return size < (this.touch * length) / 2 ? null : { loops, size };
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

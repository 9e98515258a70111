import type { Cubic } from '../../geometry/cubic';
import type { Matrix } from '../../geometry/matrix';
import type { Point } from '../../geometry/point';
import type { NibKind, NibOf } from '../../drawing/nib';

/** A place along a stroke: where its middle is, its direction there, and how far its body reaches to both sides. */
export type Section = { p: Point; along: Point; left: number; right: number };

/** What a nib has left along a run: closed outlines for the nonzero rule, and all that is known of it. */
export type Stroke = {
  outlines: Cubic[][];
  length: number;
  section: (at: number) => Section;
  random: () => number;
};

/** One kind of nib. What a kind leaves out is as with a round one. */
export type NibDefinition<K extends NibKind = NibKind> = {
  kind: K;
  label: string;
  /** What it does, for the one who chooses. */
  about: string;
  plain: NibOf<K>;
  /** What widths are multiplied by, at a share of the length, and the shares (rising) between which that is smooth. */
  taper?: (nib: NibOf<K>, closed: boolean) => { knots: readonly number[]; factor: (at: number) => number } | null;
  /** The nib's shape as a map of a round one of the stroke's width. */
  shape?: (nib: NibOf<K>) => Matrix;
  /** What is made of the finished body. */
  finish?: (nib: NibOf<K>, stroke: Stroke) => Cubic[][];
};

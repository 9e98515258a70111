import { expose } from 'comlink';
import type { CubicRun } from '@/core';
import { placedArea, type PlacedArea } from '@/core/edits/placedArea';
import { withInner } from '@/core/edits/innerOutlines';
import { arrangementOf } from '@/core/flats/arrangement';

const finding = {
  /** What of areas lies outside of the bodies of the drawing's lines. */
  inner: withInner,
  /** All areas between lines, with a place in each. */
  areas: (runs: CubicRun[], gap: number): PlacedArea[] => arrangementOf(runs, { gap }).areas().map(placedArea),
};

export type AreasWorker = typeof finding;
expose(finding);

import { expose } from 'comlink';
import type { CubicRun, Drawing } from '@/core';
import { placedArea, type PlacedArea } from '@/core/edits/flats';
import { innerOutlines } from '@/core/edits/innerOutlines';
import { arrangementOf } from '@/core/flats/arrangement';

const finding = {
  /** What of areas lies outside of the bodies of the drawing's lines. */
  inner: (d: Drawing, areas: readonly PlacedArea[], without: readonly string[]): PlacedArea[] => {
    const inner = innerOutlines(
      d,
      areas.map((a) => ({ ...a, without })),
    );
    return areas.map((a, i) => ({ ...a, inner: inner[i] }));
  },
  /** All areas between lines, with a place in each. */
  areas: (runs: CubicRun[], gap: number): PlacedArea[] => arrangementOf(runs, { gap }).areas().map(placedArea),
};

export type AreasWorker = typeof finding;
expose(finding);

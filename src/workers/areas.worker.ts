import { expose } from 'comlink';
import type { CubicRun } from '@/core';
import { placedArea, type PlacedArea } from '@/core/edits/flats';
import { arrangementOf } from '@/core/flats/arrangement';

/** Finds all areas between lines, with a place in each. */
const finding = {
  areas: (runs: CubicRun[], gap: number): PlacedArea[] => arrangementOf(runs, { gap }).areas().map(placedArea),
};

export type AreasWorker = typeof finding;
expose(finding);

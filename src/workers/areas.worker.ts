import { expose } from 'comlink';
import type { CubicRun } from '@/core';
import { arrangementOf, type Area } from '@/core/flats/arrangement';

/** Finds all areas between lines. */
const finding = {
  areas: (runs: CubicRun[], gap: number): Area[] => arrangementOf(runs, { gap }).areas(),
};

export type AreasWorker = typeof finding;
expose(finding);

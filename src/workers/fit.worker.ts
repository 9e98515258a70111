import { expose } from 'comlink';
import type { Cubic } from '@/core';
import { cubicsOfStroke } from '@/core/assist/pencilStroke';

/** Fits curves to what a hand drew: x and y in turn. */
const fitting = {
  stroke(places: Float64Array, closed: boolean, tolerance: number): Cubic[] | null {
    const points = Array.from({ length: places.length / 2 }, (_, i) => ({ x: places[2 * i], y: places[2 * i + 1] }));
    return cubicsOfStroke({ points, closed }, tolerance);
  },
};

export type FitWorker = typeof fitting;
expose(fitting);

import type { Point } from '@/core';

const directions: Record<string, Point> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** How far an arrow key moves what is chosen: one page unit, ten with Shift; null for another key. */
export function arrowOffset(key: string, shift: boolean): Point | null {
  const d = directions[key];
  const step = shift ? 10 : 1;
  return d ? { x: d.x * step, y: d.y * step } : null;
}

import type { Point } from '@/core';
import { snapped } from '@/core/drawing/snap';
import { mirrorInHand, withAxis } from '../state/mirroring';
import { SNAP, type HandEvent, type ToolContext } from './tool';

/** Where the hand draws to: guides, the axis of the mirror and the grid draw a place to them; with Ctrl nothing does. */
export function ruled({ bench, unit }: ToolContext, e: HandEvent): Point {
  const s = bench.getState();
  return e.mod ? e.page : snapped(withAxis(s.drawing.page, mirrorInHand(s)), e.page, SNAP * unit());
}

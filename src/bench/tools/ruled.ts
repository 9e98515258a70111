import type { Point } from '@/core';
import { snapped } from '@/core/drawing/snap';
import { withAxis } from '../state/mirroring';
import { SNAP, type HandEvent, type ToolContext } from './tool';

/** Where the hand draws to: guides, the axis of the mirror and the grid draw a place to them; with Ctrl nothing does. */
export function ruled({ bench, unit }: ToolContext, e: HandEvent): Point {
  const { drawing, mirror } = bench.getState();
  return e.mod ? e.page : snapped(withAxis(drawing.page, mirror), e.page, SNAP * unit());
}

import type { Box, Point } from '@/core';

/** How the page lies in the window: a page point p is seen at p · scale + (x, y), in CSS px of the canvas. */
export type View = { readonly scale: number; readonly x: number; readonly y: number };
export type Size = { readonly width: number; readonly height: number };

export const LEAST_SCALE = 0.02;
export const MOST_SCALE = 64;

export const toScreen = (v: View, p: Point): Point => ({ x: p.x * v.scale + v.x, y: p.y * v.scale + v.y });
export const toPage = (v: View, p: Point): Point => ({ x: (p.x - v.x) / v.scale, y: (p.y - v.y) / v.scale });

export const clampScale = (scale: number): number => Math.min(MOST_SCALE, Math.max(LEAST_SCALE, scale));

/** The view at another scale, with the point of the page under `at` (on the screen) kept there. */
export function zoomedAt(v: View, at: Point, scale: number): View {
  const s = clampScale(scale);
  const p = toPage(v, at);
  return { scale: s, x: at.x - p.x * s, y: at.y - p.y * s };
}

export const panned = (v: View, by: Point): View => ({ ...v, x: v.x + by.x, y: v.y + by.y });

/** The view that shows a box whole, in the middle, with a margin around it. */
export function fitting(box: Box, window: Size, margin = 36): View {
  const [width, height] = [Math.max(1e-6, box.maxX - box.minX), Math.max(1e-6, box.maxY - box.minY)];
  const scale = clampScale(
    Math.min(Math.max(40, window.width - 2 * margin) / width, Math.max(40, window.height - 2 * margin) / height),
  );
  return {
    scale,
    x: window.width / 2 - ((box.minX + box.maxX) / 2) * scale,
    y: window.height / 2 - ((box.minY + box.maxY) / 2) * scale,
  };
}

/** The part of the page that the window shows. */
export function shownBox(v: View, window: Size): Box {
  const a = toPage(v, { x: 0, y: 0 });
  const b = toPage(v, { x: window.width, y: window.height });
  return { minX: a.x, minY: a.y, maxX: b.x, maxY: b.y };
}

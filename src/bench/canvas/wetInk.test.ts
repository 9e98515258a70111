import type { Point } from '@/core';
import { paintWet, type Wet } from './wetInk';

/** A page's canvas of 200 × 100 device px at two to a CSS px, and what is done on it and on those made beside it. */
function page() {
  const lines: number[] = [];
  const laid: number[][] = [];
  const context = (canvas: object): object => {
    let inPath = 0;
    const own: Record<string, unknown> = {
      canvas,
      getTransform: () => ({ a: 2 }),
      beginPath: () => (inPath = 0),
      lineTo: () => inPath++,
      stroke: () => lines.push(inPath),
      drawImage: (_: unknown, ...at: number[]) => laid.push(at.slice(0, 4)),
    };
    return new Proxy(own, { get: (o, key: string) => o[key] ?? (() => undefined) });
  };
  const createElement = (): object => {
    const canvas: Record<string, unknown> = { width: 0, height: 0 };
    const its = context(canvas);
    canvas.getContext = () => its;
    return canvas;
  };
  (globalThis as { document?: unknown }).document = { createElement };
  return { ctx: context({ width: 200, height: 100 }) as CanvasRenderingContext2D, lines, laid };
}

const at = (x: number, y: number): { page: Point } => ({ page: { x, y } });
const view = { scale: 1, x: 0, y: 0 };

test('a frame paints what the stroke has grown by, and the whole only when the view is another', () => {
  const { ctx, lines, laid } = page();
  const passed = [at(10, 10), at(20, 10), at(20, 20)];
  const stroke: Wet = { passed, style: { width: 2 }, colour: '#000000' };
  paintWet(ctx, view, stroke);
  expect(lines).toEqual([2]);
  // The part of the canvas that has ink, and no more of it.
  expect(laid).toEqual([[16, 16, 28, 28]]);
  paintWet(ctx, view, stroke);
  expect(lines).toEqual([2]);
  passed.push(at(40, 20), at(150, 20));
  paintWet(ctx, view, stroke);
  expect(lines).toEqual([2, 2]);
  expect(laid.at(-1)).toEqual([16, 16, 184, 28]);
  paintWet(ctx, { ...view, x: 5 }, stroke);
  expect(lines).toEqual([2, 2, 4]);
});

test('where a stroke only begins, or lies beyond the window, nothing is laid on the page', () => {
  const { ctx, lines, laid } = page();
  const style = { width: 2 };
  paintWet(ctx, view, { passed: [at(10, 10)], style, colour: '#000000' });
  paintWet(ctx, view, { passed: [at(-90, -10), at(-20, -40)], style, colour: '#000000' });
  expect(lines).toEqual([1]);
  expect(laid).toEqual([]);
});

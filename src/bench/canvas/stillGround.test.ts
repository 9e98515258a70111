import { emptyDrawing, plainPage, type Drawing, type Reference } from '@/core';
import { placedReference } from '@/core/edits/references';
import type { PictureStore } from './pictures';
import { StillGround } from './stillGround';

const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
const reference = placedReference(page, {
  id: 'r',
  name: 'scan.png',
  picture: 'a'.repeat(64),
  pixelWidth: 400,
  pixelHeight: 300,
  dpi: 96,
});
const drawing: Drawing = {
  ...emptyDrawing(page, { id: 's', name: 'Lines', tag: '#aa3322' }),
  references: [{ ...reference, visible: true }],
};
const view = { scale: 1, x: 0, y: 0 };
const size = { width: 400, height: 300 };

/** Contexts that note what is drawn, in place of a browser's. */
function stand() {
  const drawn: unknown[] = [];
  const context = new Proxy({} as Record<string, unknown>, {
    get: (own, key: string) =>
      own[key] ?? (key === 'drawImage' ? (what: unknown) => drawn.push(what) : () => undefined),
  }) as unknown as CanvasRenderingContext2D;
  const made = { width: 0, height: 0, getContext: () => context };
  (globalThis as { document?: unknown }).document = { createElement: () => made };
  let bitmap: unknown = { width: 400, height: 300 };
  const pictures = {
    bitmapFor: () => bitmap,
    seen: (placed: unknown) => ({ placed, bitmap }),
  } as unknown as PictureStore;
  const ground = new StillGround();
  const paint = (d = drawing, v = view): number => {
    const before = drawn.filter((x) => x === bitmap).length;
    ground.paint(context, d, v, size, 1, pictures);
    expect(drawn.at(-1)).toBe(made);
    return drawn.filter((x) => x === bitmap).length - before;
  };
  return { paint, swap: () => (bitmap = { width: 800, height: 600 }) };
}
const dimmer = (r: Reference): Reference => ({ ...r, dim: 0.9 });

test('pictures are scaled once for as long as they, the view and the page stay the same', () => {
  const { paint, swap } = stand();
  expect(paint()).toBe(1);
  // Lines that change leave it as it is.
  expect(paint({ ...drawing, sheets: [] })).toBe(0);
  expect(paint(drawing, { ...view, x: 5 })).toBe(1);
  expect(paint()).toBe(1);
  expect(paint({ ...drawing, dim: 0.7 })).toBe(1);
  const dimmed = { ...drawing, references: drawing.references.map(dimmer) };
  expect(paint(dimmed)).toBe(1);
  expect(paint(dimmed)).toBe(0);
  // The same picture, finer than before.
  swap();
  expect(paint(dimmed)).toBe(1);
  expect(paint({ ...dimmed, page: { ...page, ground: '#ffffff' } })).toBe(1);
});

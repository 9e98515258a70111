import Konva from 'konva/lib/Core';

/** A shape that fills its layer, painted by hand with the browser's own context. Nothing of it can be taken hold of. */
export const paintedShape = (paint: (ctx: CanvasRenderingContext2D) => void): Konva.Shape =>
  new Konva.Shape({
    listening: false,
    perfectDrawEnabled: false,
    sceneFunc: (c) => paint((c as unknown as { _context: CanvasRenderingContext2D })._context),
  });

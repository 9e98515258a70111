import { expose } from 'comlink';
import type { Line } from '@/core';
import type { Shape } from '@/core/edits/shapes';
import { isSamePaint } from '@/core/drawing/paint';
import { bodyOf } from '@/core/ink/body';
import { melted, shapeAt, shapesOf } from '@/core/ink/melt';

/** How far the outlines of shapes may lie from the edge of their stroke, page units. */
const TOLERANCE = 0.02;

/** Makes shapes of strokes. */
const melting = {
  /** Each line's stroke as a shape of its own. */
  apart(lines: Line[]): Shape[] {
    return lines.flatMap((line): Shape[] => {
      const outlines = melted(bodyOf(line, TOLERANCE));
      return outlines.length > 0 ? [{ of: [line.id], outlines }] : [];
    });
  },

  /** Strokes of one colour that touch, as one shape. */
  together(lines: Line[]): Shape[] {
    const paints = lines
      .map((l) => l.style.stroke)
      .filter((p, i, all) => all.findIndex((q) => isSamePaint(p, q)) === i);
    return paints.flatMap((paint) => {
      const bodies = lines
        .filter((l) => isSamePaint(l.style.stroke, paint))
        .map((l) => ({ id: l.id, body: bodyOf(l, TOLERANCE) }));
      const shapes = shapesOf(melted(bodies.flatMap((b) => b.body)));
      return shapes.map((outlines, i): Shape => ({
        of: bodies.filter(({ body }) => body.some((o) => shapeAt(shapes, o[0][0]) === i)).map((b) => b.id),
        outlines,
      }));
    });
  },
};

export type MeltWorker = typeof melting;
expose(melting);

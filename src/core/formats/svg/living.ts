import { z } from 'zod';
import { grownStroke } from '../../ink/grown';
import { growthOf } from '../../geometry/matrix';
import type { Item } from '../../drawing/schema';
import { boundedLines } from './bounds';
import { outlineRuns, paintOf } from './lines';
import type { Context, Making } from './making';
import type { SvgElement } from './tree';
import { titleOf } from './title';
import { markSchema, SCHEMA_VERSION, styleSchema, type Line } from '../../drawing/schema';
import { upgradedItems } from '../../drawing/upgrade';
import { pathData } from '../pathData';

/**
 * A living stroke is written as its outline, which every reader of SVG shows. What it was made from is kept beside it in
 * data attributes (HTML and SVG 2, `data-*`): `data-skeleton` is the middle line's path data, `data-stroke` its style and
 * width marks as JSON. Other programs pass both over.
 */
const livingSchema = z.strictObject({ style: styleSchema, marks: z.array(markSchema).max(2_000) });
/** The number of the schema that the first programs wrote, which did not say so. */
const UNSAID = 2;

/** The attributes that tell what a living stroke was made from. */
export function livingData(line: Line, precision: number, escaped: (text: string) => string): string {
  const short = (v: number): number => Number(v.toFixed(6));
  const marks = (line.marks ?? []).map((m) => ({ ...m, at: short(m.at), left: short(m.left), right: short(m.right) }));
  const stroke = JSON.stringify({ schema: SCHEMA_VERSION, style: line.style, marks });
  return `data-skeleton="${pathData(line, precision)}" data-stroke="${escaped(stroke)}"`;
}

/**
 * An element that was written from a living stroke as that line: its paints are those that it is seen with now. Null for
 * another element.
 */
export function livingLine(making: Making, e: SvgElement, context: Context): Item[] | null {
  const living = livingOf(e.attributes);
  if (!living) return null;
  const runs = outlineRuns(making, living.skeleton, context.map);
  const shape = { data: living.skeleton, element: e, context, look: context.look };
  const stroke = paintOf(making, shape, context.look.fill, context.look.fillAlpha, runs);
  if (runs.length === 0 || !context.look.isVisible || !stroke) return [];
  const own = grownStroke(living.stroke, growthOf(context.map));
  const filled = living.stroke.style.fill === null ? undefined : fillBeside(e);
  const look = filled && making.lookOf(filled, context.look, context.measures);
  const fill = look ? paintOf(making, { ...shape, element: filled, look }, look.fill, look.fillAlpha, runs) : null;
  const name = titleOf(e);
  const lines = boundedLines(making, { runs, style: { ...own.style, stroke, fill } });
  return lines.map((line) => ({ ...line, ...(own.marks && { marks: own.marks }), ...(name && { name }) }));
}

/** The element that shows a living stroke's fill, before or after it. */
const fillBeside = (e: SvgElement): SvgElement | undefined =>
  [-1, 1].map((by) => e.parent?.children[e.index + by]).find((x) => x?.attributes['data-part'] === 'fill');

/** What a stroke was made from, read from its attributes; null where there is nothing, or nothing sound. */
function livingOf(
  attributes: Readonly<Record<string, string>>,
): { skeleton: string; stroke: Pick<Line, 'style' | 'marks'> } | null {
  const [skeleton, text] = [attributes['data-skeleton'], attributes['data-stroke']];
  if (!skeleton || !text || text.length > 500_000) return null;
  try {
    const { schema = UNSAID, ...kept } = JSON.parse(text) as { schema?: number };
    const { style, marks } = livingSchema.parse(upgradedItems([kept], schema)[0]);
    return { skeleton, stroke: { style, ...(marks.length > 0 ? { marks } : {}) } };
  } catch {
    return null;
  }
}

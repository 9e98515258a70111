import { z } from 'zod';
import { markSchema, SCHEMA_VERSION, styleSchema, type Line } from '../drawing/schema';
import { upgradedItems } from '../drawing/upgrade';
import { pathData } from './pathData';

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

/** What a stroke was made from, read from its attributes; null where there is nothing, or nothing sound. */
export function livingOf(
  attributes: Record<string, string>,
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

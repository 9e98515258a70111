import type { Dash } from '../drawing/schema';

/** A piece of a run, by its ways from the start. */
export type Span = { from: number; to: number };

/** Dashes finer than this are drawn as a whole stroke, in page units. */
const FINEST = 0.05;
const MOST = 5_000;

/**
 * The pieces of a run of some length that are drawn (SVG 2, chapter 13.5.7): lengths of strokes and gaps in turns, an odd
 * list twice over, begun `offset` into it.
 */
export function dashesOf(length: number, { lengths, offset }: Dash): Span[] {
  const list = lengths.length % 2 === 0 ? lengths : [...lengths, ...lengths];
  const period = list.reduce((a, b) => a + b, 0);
  if (!(period > FINEST) || length / period > MOST) return [{ from: 0, to: length }];
  const spans: Span[] = [];
  let i = 0;
  let at = -(((offset % period) + period) % period);
  while (at < length) {
    const end = at + list[i];
    if (i % 2 === 0 && end >= 0 && (end > 0 || at === 0))
      spans.push({ from: Math.max(0, at), to: Math.min(length, end) });
    at = end;
    i = (i + 1) % list.length;
  }
  return spans;
}

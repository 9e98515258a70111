import type { Line } from '../drawing/schema';

/** A stroke's lengths, made larger or smaller. */
export function grownStroke({ style, marks }: Pick<Line, 'style' | 'marks'>, k: number): Pick<Line, 'style' | 'marks'> {
  // Sizes in a file are rounded.
  if (Math.abs(k - 1) < 1e-5) return { style, ...(marks && { marks }) };
  const length = (v: number): number => Math.min(10_000, v * k);
  return {
    style: {
      ...style,
      width: length(style.width),
      ...(style.dash && { dash: { lengths: style.dash.lengths.map(length), offset: style.dash.offset * k } }),
      ...(style.wobble !== undefined && { wobble: Math.min(1_000, style.wobble * k) }),
      ...(style.overrun !== undefined && { overrun: Math.min(1_000, style.overrun * k) }),
    },
    ...(marks && { marks: marks.map((m) => ({ ...m, left: length(m.left), right: length(m.right) })) }),
  };
}

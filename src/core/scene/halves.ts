import type { LineNode, Part } from './scene';

/** Whether a part is the line's fill, not its stroke. */
export const isFill = (p: Part): boolean => p.kind === 'area' && p.within === 'line';

/** A line with nothing but its stroke; null where it has none. */
export function strokeOf(node: LineNode): LineNode | null {
  const parts = node.parts.filter((p) => !isFill(p));
  if (parts.length === 0) return null;
  const { fillRule: _, strokeBelow: __, ...style } = node.line.style;
  return { ...node, parts, line: { ...node.line, style: { ...style, fill: null } } };
}

/** A line with nothing but its fill; null where it has none. */
export function fillOf(node: LineNode): LineNode | null {
  const parts = node.parts.filter(isFill);
  if (parts.length === 0) return null;
  const { marks: _, ...line } = node.line;
  const { nib: __, wobble: ___, overrun: ____, dash: _____, ...style } = line.style;
  return { ...node, parts, line: { ...line, style: { ...style, width: 0 } } };
}

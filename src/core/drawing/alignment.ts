import { movedBox } from '../geometry/box';
import type { Box, Point } from '../geometry/point';
import type { Page } from './schema';
import { gridOffset, guideOffset } from './snap';

/** What a box that was brought into line with others has in common with them, page units. */
export type AlignmentMark =
  /** Sides or middles lie on one line: upright at `at` for `x`, level for `y`, from one end to the other. */
  | { readonly kind: 'line'; readonly axis: 'x' | 'y'; readonly at: number; readonly from: number; readonly to: number }
  /** Equal gaps along `axis`, each from and to, shown at `across` on the other axis. */
  | {
      readonly kind: 'gaps';
      readonly axis: 'x' | 'y';
      readonly across: number;
      readonly gaps: readonly (readonly [number, number])[];
    };

export type Alignment = { readonly by: Point; readonly marks: readonly AlignmentMark[] };

/** An interval of a box along one axis, and across it. */
type Span = { readonly low: number; readonly high: number; readonly from: number; readonly to: number };

/** Which places of a box are brought into line: its low side, its middle, its high side. */
export type Sides = Record<'x' | 'y', readonly ('low' | 'middle' | 'high')[]>;
export const allSides: Sides = { x: ['low', 'middle', 'high'], y: ['low', 'middle', 'high'] };

/** Places this near, page units, are the same. */
const SAME = 1e-6;

const spanOf = (b: Box, axis: 'x' | 'y'): Span =>
  axis === 'x'
    ? { low: b.minX, high: b.maxX, from: b.minY, to: b.maxY }
    : { low: b.minY, high: b.maxY, from: b.minX, to: b.maxX };

const middleOf = ({ low, high }: Span): number => (low + high) / 2;
const placeOf = (s: Span, side: 'low' | 'middle' | 'high'): number => (side === 'middle' ? middleOf(s) : s[side]);

/**
 * How far a box is to go, each way by itself and by `reach` page units at most, to lie in line: on a guide; else with its
 * sides or its middle where others have theirs, or with equal gaps between it and others in a row; else on the grid,
 * where that is on. With it all that it then has in common with the others. `sides` are those of its places that count;
 * gaps count only where all do.
 */
export function alignBox(page: Page, box: Box, others: readonly Box[], reach: number, sides = allSides): Alignment {
  const by = { x: 0, y: 0 };
  const isKept = { x: false, y: false };
  for (const axis of ['x', 'y'] as const) {
    const places = sides[axis].map((side) => placeOf(spanOf(box, axis), side));
    const toGuide = guideOffset(page, axis, places, reach);
    if (toGuide !== null) {
      by[axis] = toGuide;
      continue;
    }
    // Gaps are those of a row: what the box lies in once it is in line the other way.
    const now = spanOf(axis === 'y' ? movedBox(box, { x: by.x, y: 0 }) : box, axis);
    const spans = others.map((o) => spanOf(o, axis));
    const offsets = [...toSides(now, spans, sides[axis]), ...(isWhole(sides) ? toGaps(now, spans) : [])];
    const nearest = offsets.reduce((best, o) => (Math.abs(o) < Math.abs(best) ? o : best), Infinity);
    isKept[axis] = Math.abs(nearest) <= reach;
    by[axis] = isKept[axis] ? nearest : gridOffset(page, places, reach);
  }
  const moved = movedBox(box, by);
  return {
    by,
    marks: (['x', 'y'] as const).flatMap((axis) => (isKept[axis] ? marksOf(moved, others, axis, sides) : [])),
  };
}

const isWhole = ({ x, y }: Sides): boolean => x.length === 3 && y.length === 3;

/** Sides come onto sides, the middle onto middles. */
function toSides(own: Span, others: readonly Span[], sides: Sides['x']): number[] {
  return others.flatMap((o) =>
    sides.flatMap((side) => {
      const at = placeOf(own, side);
      return side === 'middle' ? [middleOf(o) - at] : [o.low - at, o.high - at];
    }),
  );
}

/** Those beside the box, in their order along the axis. */
const inRow = (own: Span, others: readonly Span[]): Span[] =>
  others.filter((o) => o.from <= own.to && own.from <= o.to).sort((a, b) => a.low - b.low);

/** Each with the next in a row that begins beyond its end. */
function neighbours(row: readonly Span[]): [Span, Span][] {
  return row.flatMap((a, i): [Span, Span][] => {
    const b = row.slice(i + 1).find((s) => s.low > a.high + SAME);
    return b ? [[a, b]] : [];
  });
}

/** Where the box repeats the gap of two neighbours beyond either, or lies in the middle between them. */
function toGaps(own: Span, others: readonly Span[]): number[] {
  const size = own.high - own.low;
  return neighbours(inRow(own, others)).flatMap(([a, b]) => {
    const gap = b.low - a.high;
    return [
      b.high + gap - own.low,
      a.low - gap - own.high,
      ...(gap > size ? [a.high + (gap - size) / 2 - own.low] : []),
    ];
  });
}

/** What a box has in common with others along one axis. */
function marksOf(box: Box, others: readonly Box[], axis: 'x' | 'y', sides: Sides): AlignmentMark[] {
  const own = spanOf(box, axis);
  const spans = others.map((o) => spanOf(o, axis));
  const lines = sides[axis].flatMap((side): AlignmentMark[] => {
    const at = placeOf(own, side);
    const alike = spans.filter((o) =>
      (side === 'middle' ? [middleOf(o)] : [o.low, o.high]).some((v) => Math.abs(v - at) < SAME),
    );
    if (alike.length === 0) return [];
    const from = Math.min(own.from, ...alike.map((o) => o.from));
    return [{ kind: 'line', axis, at, from, to: Math.max(own.to, ...alike.map((o) => o.to)) }];
  });
  return [...lines, ...(isWhole(sides) ? gapsOf(own, spans, axis) : [])];
}

/** The equal gaps about a box, if there are any. */
function gapsOf(own: Span, others: readonly Span[], axis: 'x' | 'y'): AlignmentMark[] {
  const isEqual = (a: number, b: number): boolean => Math.abs(a - b) < SAME;
  for (const [a, b] of neighbours(inRow(own, others))) {
    const gap = b.low - a.high;
    const gaps = isEqual(b.high + gap, own.low)
      ? [[a.high, b.low] as const, [b.high, own.low] as const]
      : isEqual(a.low - gap, own.high)
        ? [[own.high, a.low] as const, [a.high, b.low] as const]
        : isEqual(own.low - a.high, b.low - own.high) && own.low > a.high
          ? [[a.high, own.low] as const, [own.high, b.low] as const]
          : null;
    if (!gaps) continue;
    const across = (Math.max(own.from, a.from, b.from) + Math.min(own.to, a.to, b.to)) / 2;
    return [{ kind: 'gaps', axis, across, gaps }];
  }
  return [];
}

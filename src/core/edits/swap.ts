import { edit, type Edit } from '../change/edit';
import { isOpenSheet } from '../drawing/find';
import type { BasePaint } from '../drawing/paint';
import type { Drawing } from '../drawing/schema';
import { opaqueColourOf } from '../scene/ink';
import { eachPaint, repainted, type PaintUse, type Where } from './paints';

/** A colour that is seen, and what it is to be. */
export type Pair = { readonly from: string; readonly to: BasePaint };

export type SwapIn = Where & { readonly uses: readonly PaintUse[] };

/**
 * Colours swapped for others, all at once: one that becomes another's is not swapped again. A swatch counts as the colour
 * that it is. Only on sheets that are open.
 */
export function swapColours(d: Drawing, pairs: readonly Pair[], { uses, ids, sheets }: SwapIn): Edit {
  const by = new Map(pairs.map((p) => [p.from, p.to]));
  const make = (base: BasePaint, use: PaintUse): BasePaint =>
    uses.includes(use) ? (by.get(opaqueColourOf(d, base)) ?? base) : base;
  const where: Where = { ids, sheets: (s) => isOpenSheet(s) && (sheets?.(s) ?? true) };
  return edit(pairs.length === 1 ? 'Swap a colour' : `Swap ${pairs.length} colours`, repainted(d, make, where));
}

/** The colours that are seen, the one painted with most often first: how often, as strokes and as fills. */
export function coloursIn(
  d: Drawing,
  ids?: ReadonlySet<string> | null,
): ({ colour: string } & Record<PaintUse, number>)[] {
  const found = new Map<string, { colour: string } & Record<PaintUse, number>>();
  eachPaint(d, (base, use, id) => {
    if (ids && !ids.has(id)) return;
    const colour = opaqueColourOf(d, base);
    const own = found.get(colour) ?? { colour, stroke: 0, fill: 0 };
    own[use]++;
    found.set(colour, own);
  });
  return [...found.values()].sort((a, b) => b.stroke + b.fill - a.stroke - a.fill);
}

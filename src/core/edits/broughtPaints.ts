import type { Step } from '../change/change';
import { isFlat, isGroup, isLine } from '../drawing/items';
import { isSwatch, type BasePaint, type Gradient, type Paint, type Swatch } from '../drawing/paint';
import type { Drawing, Item, Line } from '../drawing/schema';
import { remade, type PaintUse } from './paints';

/** The colours and gradients that the paints of items speak of. */
export type Paints = { readonly palette?: readonly Swatch[]; readonly gradients?: readonly Gradient[] };

/**
 * Items that come from elsewhere, painted with what a drawing has: its own swatches and gradients where they are alike, else
 * those that come with them, which `steps` add under ids of their own.
 */
export function broughtPaints(
  d: Drawing,
  items: readonly Item[],
  from: Paints,
  freshId: () => string,
): { items: readonly Item[]; steps: Step[] } {
  const palette = new Arrivals(d.palette ?? [], from.palette ?? [], freshId);
  const base = (paint: BasePaint): BasePaint => {
    if (!isSwatch(paint)) return paint;
    const id = palette.known(paint.swatch);
    return id === paint.swatch ? paint : { swatch: id };
  };
  const come = (from.gradients ?? []).map((g) => ({
    ...g,
    stops: g.stops.map((s) => ({ ...s, colour: base(s.colour) })),
  }));
  const gradients = new Arrivals(d.gradients ?? [], come, freshId);
  const paint = (p: Paint, use: PaintUse): Paint => {
    if (typeof p !== 'object' || !('gradient' in p)) return remade(p, use, base);
    const id = gradients.known(p.gradient);
    return id === p.gradient ? p : { gradient: id };
  };
  const painted = (line: Line): Line => {
    const stroke = paint(line.style.stroke, 'stroke');
    const fill = line.style.fill && paint(line.style.fill, 'fill');
    const isSame = stroke === line.style.stroke && fill === line.style.fill;
    return isSame ? line : { ...line, style: { ...line.style, stroke, fill } };
  };
  const made = (item: Item): Item => {
    if (isLine(item)) return painted(item);
    if (isFlat(item)) return { ...item, fill: paint(item.fill, 'fill') };
    return isGroup(item) ? { ...item, items: item.items.map(made) } : item;
  };
  const own = items.map(made);
  const steps: Step[] = [];
  if (palette.added.length > 0) steps.push(setStep('palette', d.palette ?? [], palette.added));
  if (gradients.added.length > 0) steps.push(setStep('gradients', d.gradients ?? [], gradients.added));
  return { items: own, steps };
}

const setStep = (key: 'palette' | 'gradients', before: readonly unknown[], added: readonly unknown[]): Step =>
  ({ step: 'setDrawing', before: { [key]: [...before] }, after: { [key]: [...before, ...added] } }) as Step;

/** Things with ids that come to others: each is one of those that are there, or one more. */
class Arrivals<T extends { readonly id: string }> {
  readonly added: T[] = [];
  private readonly ids = new Map<string, string>();
  private readonly there: Map<string, string>;
  private readonly taken: Set<string>;

  constructor(
    there: readonly T[],
    private readonly come: readonly T[],
    private readonly freshId: () => string,
  ) {
    this.there = new Map(there.map((t) => [alike(t), t.id]));
    this.taken = new Set(there.map((t) => t.id));
  }

  /** What one that comes is known by from now on; one that does not come keeps its id. */
  known(id: string): string {
    const before = this.ids.get(id);
    if (before) return before;
    const own = this.come.find((t) => t.id === id);
    if (!own) return id;
    let next = this.there.get(alike(own));
    if (!next) {
      next = this.taken.has(id) ? this.freshId() : id;
      this.taken.add(next);
      this.added.push({ ...own, id: next });
    }
    this.ids.set(id, next);
    return next;
  }
}

const alike = ({ id: _, ...rest }: { readonly id: string }): string => JSON.stringify(rest);

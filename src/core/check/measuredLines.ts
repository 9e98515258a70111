import { linesOf, seenLines } from '../drawing/items';
import { findLine } from '../drawing/find';
import type { Drawing, Line, Reference } from '../drawing/schema';
import type { Picture } from '../colour/picture';
import { measureLine, type DistanceFigures, type LineDistance, type MeasuredLine } from './lineDistance';
import { referenceBeneath } from '../drawing/beneath';
import { measureMoved } from './lineMoved';
import { placementKey, type Pictures } from './pictures';
import { figuresOfAll, tallyOf, type Tally } from './tally';

/** The figures of all lines of the drawing that are seen, and of each sheet that has any. */
export type DistanceSums = { readonly drawing: DistanceFigures; readonly sheets: ReadonlyMap<string, DistanceFigures> };

type Target = { reference: Reference; image: Picture };

/** `inPart`: some of it was measured when the line had another shape. */
type Known = { image: Picture; placement: string; reach: number; measured: MeasuredLine; inPart: boolean };

/**
 * How the lines of a drawing lie to the ink beneath them. What was measured once is kept for as long as it holds; of a line
 * that changed only what moved is measured at first, so that its figures are there at once, and the whole when there is time.
 */
export class MeasuredLines {
  private readonly known = new WeakMap<Line['runs'], Known>();
  /** What each line was last, by its id. */
  private readonly last = new Map<string, Known>();
  private readonly beneath = new WeakMap<
    Line['runs'],
    { references: readonly Reference[]; reference: Reference | null }
  >();

  constructor(private readonly pictures: Pictures) {}

  /** Measures the seen lines that are not known, a line a step. */
  *measuring(d: Drawing, reach: number): Generator<void, void> {
    for (const line of seenLines(d)) {
      if (!this.target(d, line) || this.of(d, line, reach)) continue;
      this.measure(d, line, reach, true);
      yield;
    }
  }

  /** Measures those lines as a whole that were measured in part, a line a step. */
  *completing(d: Drawing, reach: number): Generator<void, void> {
    const seen = new Set(seenLines(d).map((l) => l.id));
    for (const id of this.last.keys()) if (!seen.has(id)) this.last.delete(id);
    for (const line of seenLines(d)) {
      if (!this.find(d, line, reach)?.inPart) continue;
      this.measure(d, line, reach, false);
      yield;
    }
  }

  /** A line's figures, if they are known; null where they are not, or there is no picture beneath it. */
  of(d: Drawing, line: Line, reach: number): LineDistance | null {
    const found = this.find(d, line, reach)?.measured.distance ?? null;
    // A line and its copy have the same runs.
    return found?.id === line.id ? found : found && { ...found, id: line.id };
  }

  /** All that are known, by their lines. */
  all(d: Drawing, reach: number): Map<string, LineDistance> {
    return new Map(
      seenLines(d).flatMap((l) => {
        const found = this.of(d, l, reach);
        return found ? [[l.id, found]] : [];
      }),
    );
  }

  /** Lines of the drawing as they would be: under a hand, only what moves is measured anew. */
  moved(d: Drawing, lines: readonly Line[], reach: number): LineDistance[] {
    return lines.flatMap((line) => {
      const target = this.target(d, line);
      if (!target) return [];
      const was = findLine(d, line.id)?.line;
      return this.measureFrom(was ? this.find(d, was, reach) : null, line, target, reach).measured.distance;
    });
  }

  /** Sums over what is known, with some lines as they would be. */
  sums(d: Drawing, reach: number, moved: readonly LineDistance[] = []): DistanceSums {
    const instead = new Map(moved.map((l) => [l.id, l]));
    const sheets = new Map<string, DistanceFigures>();
    const all: Tally[] = [];
    for (const s of d.sheets.filter((x) => x.visible)) {
      const own = linesOf(s).flatMap((l) => {
        const found = instead.get(l.id) ?? this.of(d, l, reach);
        return found ? [tallyOf(found.places)] : [];
      });
      if (own.length > 0) sheets.set(s.id, figuresOfAll(own));
      all.push(...own);
    }
    return { drawing: sheets.size === 1 ? [...sheets.values()][0] : figuresOfAll(all), sheets };
  }

  private measure(d: Drawing, line: Line, reach: number, mayBeInPart: boolean): void {
    const target = this.target(d, line);
    if (!target) return;
    const known = this.measureFrom(mayBeInPart ? (this.last.get(line.id) ?? null) : null, line, target, reach);
    this.known.set(line.runs, known);
    this.last.set(line.id, known);
  }

  /** A line as it lies to its picture; only what moved since `before` is looked at, where that still holds. */
  private measureFrom(before: Known | null, line: Line, { reference, image }: Target, reach: number): Known {
    const placement = placementKey(reference);
    const holds = before?.image === image && before.placement === placement && before.reach === reach;
    const part = holds ? measureMoved(line, before.measured, reference, image, reach) : null;
    const measured = part ?? measureLine(line, reference, image, reach);
    return { image, placement, reach, measured, inPart: part !== null };
  }

  private find(d: Drawing, line: Line, reach: number): Known | null {
    const known = this.known.get(line.runs);
    const target = known && this.target(d, line);
    if (!known || !target || known.reach !== reach || known.image !== target.image) return null;
    return known.placement === placementKey(target.reference) ? known : null;
  }

  private target(d: Drawing, line: Line): Target | null {
    let found = this.beneath.get(line.runs);
    if (found?.references !== d.references) {
      found = { references: d.references, reference: referenceBeneath(d, line) };
      this.beneath.set(line.runs, found);
    }
    const image = found.reference && this.pictures.get(found.reference.id);
    return found.reference && image ? { reference: found.reference, image } : null;
  }
}
